import type { DeviceCodeRequest, DeviceKind, InviteRequest } from '@doodla/core';
import { DEVICE_KINDS } from '@doodla/core';
import { IsIn, IsString, MaxLength } from 'class-validator';

export class InviteDto implements InviteRequest {
  @IsIn(DEVICE_KINDS) kind: DeviceKind;
}

export class DeviceCodeDto implements DeviceCodeRequest {
  @IsString() @MaxLength(40) code: string;
}
