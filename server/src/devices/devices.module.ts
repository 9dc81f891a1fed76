import { Global, Module } from '@nestjs/common';
import { TypeOrmModule } from '@nestjs/typeorm';
import type { Tables } from '../storage/tables.js';
import { Device } from './device.entity.js';
import { DevicesController } from './devices.controller.js';
import { LessonDevicesController } from './lessonDevices.controller.js';
import { DevicesService } from './devices.service.js';

export const DEVICES_TABLES: Tables = { entities: [Device], migrations: [] };

/** Classroom displays and writing pads. */
@Global()
@Module({
  imports: [TypeOrmModule.forFeature(DEVICES_TABLES.entities)],
  controllers: [DevicesController, LessonDevicesController],
  providers: [DevicesService],
  exports: [DevicesService],
})
export class DevicesModule {}
