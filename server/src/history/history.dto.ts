import type { ChapterName, LogRef, RestoreRequest, Space, StopPlace } from '@doodla/core';
import { isId, isSpace, MOST_CHAPTER_NAME, MOST_STOP_SECONDS, MOST_STOP_TEXT } from '@doodla/core';
import { IsIn, IsInt, IsOptional, IsString, IsUUID, Matches, Max, MaxLength, Min } from 'class-validator';
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

/** A stop of a log, by its address. */
export class StopOfLogDto extends LogDto {
  @IsUUID() stop: string;
}

export class StopPlaceDto implements StopPlace {
  @IsInt() @Min(0) at: number;
  @Is(isId, 'page') page: string;
  @IsString() @MaxLength(MOST_STOP_TEXT) text: string;
  @IsOptional() @IsInt() @Min(1) @Max(MOST_STOP_SECONDS) seconds: number | null;
}

/** A chapter of a class, by its address. */
export class ChapterDto {
  @IsUUID() id: string;
  @Matches(/^\d{1,15}$/) chapter: string;
}

export class ChapterNameDto implements ChapterName {
  @IsString() @MaxLength(MOST_CHAPTER_NAME) name: string;
}
