import type { NoteStepsMessage, SayMessage, UnsayMessage } from '@doodla/core';
import { CHAT_LIMITS } from '@doodla/core';
import { Transform } from 'class-transformer';
import {
  ArrayMaxSize,
  ArrayMinSize,
  IsArray,
  IsBoolean,
  IsInt,
  IsObject,
  IsString,
  MaxLength,
  Min,
} from 'class-validator';
import { visibleText } from '../http/visibleText.js';
import { EnterDto, IsId } from '../live/live.dto.js';

/** Steps of writing that are sent at once. */
const MOST_STEPS = 200;

export class SayDto extends EnterDto implements SayMessage {
  @IsId() id: string;
  @Transform(({ value }: { value: unknown }) => visibleText(value))
  @IsString()
  @MaxLength(CHAT_LIMITS.words)
  words: string;
}

export class UnsayDto extends EnterDto implements UnsayMessage {
  @IsId() id: string;
  @IsBoolean() removed: boolean;
}

export class NoteStepsDto extends EnterDto implements NoteStepsMessage {
  @IsInt() @Min(0) version: number;
  @IsArray() @ArrayMinSize(1) @ArrayMaxSize(MOST_STEPS) @IsObject({ each: true }) steps: object[];
  @IsId() client: string;
}
