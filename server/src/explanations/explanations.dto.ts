import type {
  Caption,
  ExplanationChapter,
  ExplanationSettings,
  ExplanationStop,
  LogRef,
  Part,
  Take,
  TakePlace,
  Track,
} from '@doodla/core';
import {
  isId,
  MOST_CAPTION_TEXT,
  MOST_CAPTIONS,
  MOST_CHAPTER_NAME,
  MOST_EXPLANATION_CHAPTERS,
  MOST_EXPLANATION_NAME,
  MOST_EXPLANATION_STOPS,
  MOST_PARTS,
  MOST_STOP_SECONDS,
  MOST_STOP_TEXT,
  MOST_TAKE_MS,
  TRACKS,
} from '@doodla/core';
import { Type } from 'class-transformer';
import {
  ArrayMaxSize,
  IsArray,
  IsBoolean,
  IsIn,
  IsInt,
  IsOptional,
  IsString,
  IsUUID,
  Matches,
  Max,
  MaxLength,
  Min,
  ValidateNested,
} from 'class-validator';
import { LogDto } from '../history/history.dto.js';
import { Is } from '../live/live.dto.js';

/** An explanation, by its address. */
export class ExplanationOfLogDto extends LogDto {
  @Is(isId, 'explanation') explanation: string;
}

/** A take, by its address. */
export class TakeOfLogDto extends ExplanationOfLogDto {
  @Is(isId, 'take') take: string;
}

/** A track of a take, by its address. */
export class TrackOfLogDto extends TakeOfLogDto {
  @IsIn(TRACKS) track: Track;
}

/** A piece of a track, by its address. */
export class PieceOfLogDto extends TrackOfLogDto {
  @Matches(/^\d{1,6}$/) number: string;
}

export class TakeDto implements Omit<Take, 'id'> {
  @IsInt() @Min(0) startedAt: number;
  @IsInt() @Min(0) @Max(MOST_TAKE_MS) length: number;
  @IsOptional() @IsString() @MaxLength(80) @Matches(/^audio\/[\w.;=+ -]+$/) voice: string | null;
  @IsOptional() @IsString() @MaxLength(80) @Matches(/^video\/[\w.;=+ -]+$/) video: string | null;
  @IsOptional() @IsString() @MaxLength(80) @Matches(/^video\/[\w.;=+ -]+$/) face: string | null;
}

class TakePlaceDto implements TakePlace {
  @Is(isId, 'take') take: string;
  @IsInt() @Min(0) @Max(MOST_TAKE_MS) from: number;
}

class PartDto extends TakePlaceDto implements Part {
  @IsInt() @Min(1) @Max(MOST_TAKE_MS) length: number;
  @IsOptional() @ValidateNested() @Type(() => TakePlaceDto) voice?: TakePlaceDto | null;
}

class StopDto extends TakePlaceDto implements ExplanationStop {
  @Is(isId, 'id') id: string;
  @IsString() @MaxLength(MOST_STOP_TEXT) text: string;
  @IsOptional() @IsInt() @Min(1) @Max(MOST_STOP_SECONDS) seconds: number | null;
}

class ChapterDto extends TakePlaceDto implements ExplanationChapter {
  @IsString() @MaxLength(MOST_CHAPTER_NAME) name: string;
}

class CaptionDto extends TakePlaceDto implements Caption {
  @IsInt() @Min(0) @Max(MOST_TAKE_MS) length: number;
  @IsString() @MaxLength(MOST_CAPTION_TEXT) text: string;
}

export class ExplanationSettingsDto implements ExplanationSettings {
  @IsString() @MaxLength(MOST_EXPLANATION_NAME) name: string;

  @IsOptional()
  @IsArray()
  @ArrayMaxSize(MOST_PARTS)
  @ValidateNested({ each: true })
  @Type(() => PartDto)
  parts: PartDto[] | null;

  @IsArray()
  @ArrayMaxSize(MOST_EXPLANATION_STOPS)
  @ValidateNested({ each: true })
  @Type(() => StopDto)
  stops: StopDto[];

  @IsArray()
  @ArrayMaxSize(MOST_EXPLANATION_CHAPTERS)
  @ValidateNested({ each: true })
  @Type(() => ChapterDto)
  chapters: ChapterDto[];

  @IsArray()
  @ArrayMaxSize(MOST_CAPTIONS)
  @ValidateNested({ each: true })
  @Type(() => CaptionDto)
  captions: CaptionDto[];

  @IsBoolean() finished: boolean;
}

/** That a class is being recorded, or no more. */
export class RecordingDto {
  @IsUUID() sitting: string;
  @IsBoolean() on: boolean;
}

export type ExplanationRef = LogRef & { explanation: string };
