import type {
  DoorRequest,
  LookRequest,
  EndRequest,
  JoinRequest,
  KeepingRequest,
  KeepPagesRequest,
  NodRequest,
  StartRequest,
  ToLessonRequest,
} from '@doodla/core';
import { Transform } from 'class-transformer';
import {
  ArrayMaxSize,
  IsArray,
  IsBoolean,
  IsInt,
  IsOptional,
  IsString,
  IsUUID,
  Length,
  Max,
  MaxLength,
  Min,
  ValidateIf,
} from 'class-validator';
import { visibleText } from '../http/visibleText.js';
import { RenameDto } from '../lessons/lessons.dto.js';
import { IsId } from '../live/live.dto.js';
import { BAD_INPUT } from '../http/badInput.js';

/** Longest password of a sitting, letters. */
const MAX_PASSWORD = 100;

export class KeepingDto implements KeepingRequest {
  @IsInt() @Min(1) @Max(3650) days: number;
}

export class JoinDto implements JoinRequest {
  @IsString() @MaxLength(40) code: string;

  @Transform(({ value }: { value: unknown }) => visibleText(value))
  @IsString()
  @Length(1, 40, { message: BAD_INPUT['your-name'] })
  name: string;

  /** What this device was given when it was in the class before. */
  @IsOptional() @IsString() @MaxLength(1000) token?: string;

  @IsOptional() @IsString() @MaxLength(MAX_PASSWORD) password?: string;
}

/** A code that somebody has typed, to see what it leads to. */
export class LookDto implements LookRequest {
  @IsString() @MaxLength(40) code: string;
  @IsOptional() @IsString() @MaxLength(MAX_PASSWORD) password?: string;
}

/** Whether somebody is let in who asked. */
export class NodDto implements NodRequest {
  @IsBoolean() grant: boolean;
}

/** How a class ends: its marks are kept under a title, or dropped. */
export class EndDto implements EndRequest {
  @IsOptional()
  @Transform(({ value }: { value: unknown }) => (typeof value === 'string' ? value.trim() : value))
  @IsString()
  @Length(1, 200, { message: BAD_INPUT['title'] })
  title?: string;

  @IsBoolean() drop: boolean;
}

/** A class to be started, on its first page or a given one. */
export class StartDto extends RenameDto implements StartRequest {
  @IsOptional() @IsId() page?: string;
}

/** Who is let in of those who have the code. */
export class DoorDto implements DoorRequest {
  @IsOptional() @IsBoolean() locked?: boolean;
  @IsOptional() @IsBoolean() nodding?: boolean;
  @IsOptional() @IsString() @MaxLength(MAX_PASSWORD) password?: string;
  @ValidateIf(({ group }: DoorDto) => group !== null && group !== undefined) @IsUUID() group?: string | null;
}

/** Pages of a class that its lesson keeps too. */
export class KeepPagesDto implements KeepPagesRequest {
  @IsArray() @ArrayMaxSize(500) @IsString({ each: true }) pages: string[];
}

/** Which marks of a class become prepared ones: all, those of a page, or chosen ones. */
export class ToLessonDto implements ToLessonRequest {
  @IsOptional() @IsId() page?: string;
  @IsOptional() @IsArray() @ArrayMaxSize(5000) @IsString({ each: true }) marks?: string[];
}
