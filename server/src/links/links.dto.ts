import type { LinkRequest, LookAtLinkRequest } from '@doodla/core';
import { isId, LINK_LIMITS } from '@doodla/core';
import { IsBoolean, IsInt, IsOptional, IsString, IsUUID, Length, MaxLength, Min } from 'class-validator';
import { Is } from '../live/live.dto.js';

export class LinkDto implements LinkRequest {
  @IsString() @Length(1, LINK_LIMITS.title) title: string;
  @IsOptional() @IsUUID() sitting?: string;
  @IsOptional() @Is(isId, 'explanation') explanation?: string;
  @IsOptional() @IsString() @Length(1, LINK_LIMITS.password) password?: string;
  @IsOptional() @IsInt() @Min(0) endsAt?: number;
  @IsBoolean() mayDownload: boolean;
}

export class LookAtLinkDto implements LookAtLinkRequest {
  @IsOptional() @IsString() @MaxLength(LINK_LIMITS.password) password?: string;
}
