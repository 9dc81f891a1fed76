import { Global, Module } from '@nestjs/common';
import { AccessService } from './access.service.js';
import { AnswersService } from './answers.service.js';
import { ClassGateway } from './class.gateway.js';
import { ClassesService } from './classes.service.js';
import { LiveGateway } from './live.gateway.js';
import { LogsService } from './logs.service.js';

/** What happens at the same time: logs, wet ink, the state of a class. */
@Global()
@Module({
  providers: [AccessService, AnswersService, ClassGateway, ClassesService, LiveGateway, LogsService],
  exports: [AccessService, ClassGateway, ClassesService, LiveGateway, LogsService],
})
export class LiveModule {}
