import type { DeviceKind } from '@doodla/core';
import { DEVICE_KINDS } from '@doodla/core';
import { IsIn, IsString, MaxLength } from 'class-validator';

export class InviteDto {
  @IsIn(DEVICE_KINDS) kind: DeviceKind;
}

export class DeviceCodeDto {
  @IsString() @MaxLength(40) code: string;
}
