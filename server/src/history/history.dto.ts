import type { LogRef, RestoreRequest, Space } from '@doodla/core';
import { isId, isSpace } from '@doodla/core';
import { IsIn, IsInt, IsUUID, Min } from 'class-validator';
import { Is } from '../live/live.dto.js';

/** A log, by its address. */
export class LogDto implements LogRef {
  @IsIn(['lesson', 'sitting']) kind: LogRef['kind'];
  @IsUUID() id: string;
}

/** A page of a log, by its address. */
export class PageOfLogDto extends LogDto {
  @Is(isId, 'page') page: string;
}

export class RestoreDto implements RestoreRequest {
  @Is(isSpace, 'space') space: Space;
  @IsInt() @Min(0) seq: number;
}
