import {
  Controller,
  Delete,
  Get,
  HttpCode,
  Param,
  ParseUUIDPipe,
  Post,
  Req,
  UseGuards,
} from '@nestjs/common';
import type { DeviceReply, InviteReply } from '@doodla/core';
import type { Request } from 'express';
import { publicAddress } from '../http/publicAddress.js';
import { LessonsService } from '../lessons/lessons.service.js';
import type { Teacher } from '../people/teacher.entity.js';
import { CurrentTeacher, TeacherGuard } from '../people/visitor.guard.js';
import { Settings } from '../settings/settings.js';
import { replyOf } from './devices.controller.js';
import { DevicesService } from './devices.service.js';

/** Companions that bring pages into a lesson while it is prepared. */
@Controller('api/lessons/:id/devices')
@UseGuards(TeacherGuard)
export class LessonDevicesController {
  constructor(
    private readonly devices: DevicesService,
    private readonly lessons: LessonsService,
    private readonly settings: Settings,
  ) {}

  /** A code for a companion, good once. */
  @Post()
  async invite(
    @CurrentTeacher() { id: teacher }: Teacher,
    @Param('id', ParseUUIDPipe) lessonId: string,
    @Req() request: Request,
  ): Promise<InviteReply> {
    await this.lessons.editable(teacher, lessonId);
    const { code } = await this.devices.invite({ lessonId }, 'companion');
    return { code, address: publicAddress(request, this.settings) };
  }

  @Get()
  async list(
    @CurrentTeacher() { id: teacher }: Teacher,
    @Param('id', ParseUUIDPipe) lessonId: string,
  ): Promise<DeviceReply[]> {
    await this.lessons.editable(teacher, lessonId);
    return (await this.devices.listed({ lessonId })).map(replyOf);
  }

  @Delete(':device')
  @HttpCode(204)
  async remove(
    @CurrentTeacher() { id: teacher }: Teacher,
    @Param('id', ParseUUIDPipe) lessonId: string,
    @Param('device', ParseUUIDPipe) device: string,
  ): Promise<void> {
    await this.lessons.editable(teacher, lessonId);
    await this.devices.remove({ lessonId }, device);
  }
}
