import type { GroupRequest } from '@doodla/core';
import { MAX_NAME, MAX_NAMES } from '@doodla/core';
import { Transform } from 'class-transformer';
import { ArrayMaxSize, IsArray, IsBoolean, IsString, Length } from 'class-validator';
import { BAD_INPUT } from '../http/badInput.js';
import { visibleText } from '../http/visibleText.js';

export class GroupDto implements GroupRequest {
  @Transform(({ value }: { value: unknown }) => visibleText(value))
  @IsString()
  @Length(1, 200, { message: BAD_INPUT['title'] })
  title: string;

  @Transform(({ value }: { value: unknown }) => (Array.isArray(value) ? value.map(visibleText) : value))
  @IsArray()
  @ArrayMaxSize(MAX_NAMES)
  @IsString({ each: true })
  @Length(1, MAX_NAME, { each: true })
  names: string[];

  @IsBoolean() keepsCode: boolean;
}
