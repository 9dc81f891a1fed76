import { Global, Module } from '@nestjs/common';
import { ScreensGateway } from './screens.gateway.js';
import { ScreensService } from './screens.service.js';

/** Screens that are shown live. */
@Global()
@Module({ providers: [ScreensGateway, ScreensService], exports: [ScreensGateway, ScreensService] })
export class ScreensModule {}
