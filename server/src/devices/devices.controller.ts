import {
  Body,
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
import type { DevicePlace, LessonPlace, DeviceReply, InviteReply } from '@doodla/core';
import type { Request } from 'express';
import { publicAddress } from '../http/publicAddress.js';
import { AttemptLimit } from '../http/attemptLimit.js';
import { Limiters } from '../processes/limiters.js';
import { AccessService } from '../live/access.service.js';
import { ClassTokens } from '../people/classTokens.js';
import { TeacherGuard, CurrentVisitor } from '../people/visitor.guard.js';
import type { Visitor } from '../people/visitor.js';
import { Settings } from '../settings/settings.js';
import { SittingsService } from '../sittings/sittings.service.js';
import { DeviceCodeDto, InviteDto } from './devices.dto.js';
import type { Device } from './device.entity.js';
import { DevicesService } from './devices.service.js';

/** What a teacher sees of a device. */
export const replyOf = ({ id, kind, enteredAt }: Device): DeviceReply => ({ id, kind, enteredAt });

@Controller('api')
export class DevicesController {
  private readonly wrongCodes: AttemptLimit;

  constructor(
    private readonly devices: DevicesService,
    private readonly sittings: SittingsService,
    private readonly access: AccessService,
    private readonly tokens: ClassTokens,
    private readonly settings: Settings,
    limiters: Limiters,
  ) {
    this.wrongCodes = new AttemptLimit(limiters, 'device-codes');
  }

  /** A code for a display, or a link for a pad, each good once. */
  @Post('sittings/:id/devices')
  @UseGuards(TeacherGuard)
  async invite(
    @CurrentVisitor() visitor: Visitor,
    @Param('id', ParseUUIDPipe) id: string,
    @Body() { kind }: InviteDto,
    @Req() request: Request,
  ): Promise<InviteReply> {
    await this.access.teaches(id, visitor);
    const { code } = await this.devices.invite({ sittingId: id }, kind);
    const base = publicAddress(request, this.settings);
    return {
      code,
      address: { display: `${base}/display`, pad: `${base}/pad/${code}`, companion: base }[kind],
    };
  }

  @Get('sittings/:id/devices')
  @UseGuards(TeacherGuard)
  async list(
    @CurrentVisitor() visitor: Visitor,
    @Param('id', ParseUUIDPipe) id: string,
  ): Promise<DeviceReply[]> {
    await this.access.teaches(id, visitor);
    return (await this.devices.listed({ sittingId: id })).map(replyOf);
  }

  @Delete('sittings/:id/devices/:device')
  @HttpCode(204)
  @UseGuards(TeacherGuard)
  async remove(
    @CurrentVisitor() visitor: Visitor,
    @Param('id', ParseUUIDPipe) id: string,
    @Param('device', ParseUUIDPipe) device: string,
  ): Promise<void> {
    await this.access.teaches(id, visitor);
    await this.devices.remove({ sittingId: id }, device);
  }

  /** Lets a display, pad or companion in. */
  @Post('devices')
  async enter(@Body() { code }: DeviceCodeDto, @Req() request: Request): Promise<DevicePlace | LessonPlace> {
    const { id, kind, sittingId, lessonId } = await this.wrongCodes.guard(request, () =>
      this.devices.enter(code),
    );
    if (lessonId !== null)
      return {
        kind: 'companion',
        lesson: lessonId,
        token: this.tokens.sign({ device: id, lesson: lessonId }),
      };
    const sitting = await this.sittings.find(sittingId!);
    return {
      kind,
      sitting: sittingId!,
      lesson: sitting!.lessonId,
      token: this.tokens.sign({ device: id, sitting: sittingId! }),
    };
  }
}
