import { Global, Module } from '@nestjs/common';
import { TypeOrmModule } from '@nestjs/typeorm';
import { PeopleController } from './people.controller.js';
import { PeopleService } from './people.service.js';
import { Preference } from './preference.entity.js';
import { PreferencesController } from './preferences.controller.js';
import { Session } from './session.entity.js';
import { ClassTokens } from './classTokens.js';
import { Teacher } from './teacher.entity.js';
import { VisitorsService } from './visitors.service.js';

@Global()
@Module({
  imports: [TypeOrmModule.forFeature([Teacher, Session, Preference])],
  controllers: [PeopleController, PreferencesController],
  providers: [PeopleService, ClassTokens, VisitorsService],
  exports: [PeopleService, ClassTokens, VisitorsService],
})
export class PeopleModule {}
