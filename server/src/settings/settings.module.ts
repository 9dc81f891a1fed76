import type { DynamicModule } from '@nestjs/common';
import { Global, Module } from '@nestjs/common';
import { Settings } from './settings.js';

@Global()
@Module({})
export class SettingsModule {
  static with(settings: Settings): DynamicModule {
    return {
      module: SettingsModule,
      providers: [{ provide: Settings, useValue: settings }],
      exports: [Settings],
    };
  }
}
