import type { ShelfChangeRequest, ShelfKeepRequest, ShelfQuestion, ShelfTakeRequest } from '@doodla/core';
import { MOST_SHELF_MARKS, MOST_SHELF_PAGES, SHELF_TITLE_LENGTH } from '@doodla/core';
import { Transform } from 'class-transformer';
import {
  ArrayMaxSize,
  ArrayMinSize,
  IsArray,
  IsBoolean,
  IsIn,
  IsOptional,
  IsString,
  IsUUID,
  Length,
  MaxLength,
} from 'class-validator';
import { BAD_INPUT } from '../http/badInput.js';
import { visibleText } from '../http/visibleText.js';

const Name = () => Transform(({ value }: { value: unknown }) => visibleText(value));

export class TakeThingDto implements ShelfTakeRequest {
  @IsUUID() lesson: string;
  @IsOptional() @IsUUID() sitting?: string;
}

export class KeepThingDto extends TakeThingDto implements ShelfKeepRequest {
  @IsArray()
  @ArrayMinSize(1)
  @ArrayMaxSize(MOST_SHELF_PAGES, { message: BAD_INPUT['shelf-pages'] })
  @IsString({ each: true })
  @Length(1, 64, { each: true })
  pages: string[];

  @IsOptional()
  @IsArray()
  @ArrayMinSize(1)
  @ArrayMaxSize(MOST_SHELF_MARKS, { message: BAD_INPUT['shelf-marks'] })
  @IsString({ each: true })
  @Length(1, 64, { each: true })
  marks?: string[];

  @Name() @IsString() @MaxLength(SHELF_TITLE_LENGTH, { message: BAD_INPUT['shelf-title'] }) title: string;
  @Name() @IsString() @MaxLength(SHELF_TITLE_LENGTH, { message: BAD_INPUT['shelf-title'] }) folder: string;
}

export class ChangeThingDto implements ShelfChangeRequest {
  @IsOptional()
  @Name()
  @IsString()
  @Length(1, SHELF_TITLE_LENGTH, { message: BAD_INPUT['shelf-title'] })
  title?: string;

  @IsOptional()
  @Name()
  @IsString()
  @MaxLength(SHELF_TITLE_LENGTH, { message: BAD_INPUT['shelf-title'] })
  folder?: string;

  @IsOptional() @IsBoolean() shared?: boolean;
}

export class ListThingsDto implements ShelfQuestion {
  @IsIn(['own', 'school']) of: 'own' | 'school';
  @IsString() @MaxLength(200) words = '';
}
