import type {
  BlankLessonRequest,
  CopyPageRequest,
  DocumentPagesRequest,
  FolderRequest,
  LessonRequest,
  TeamRequest,
  TitleRequest,
  WebPageRequest,
} from '@doodla/core';
import { Transform, Type } from 'class-transformer';
import type { BlankSheet } from '@doodla/core';
import { isBlankSheet, MOST_TAGS, TAG_LENGTH } from '@doodla/core';
import { Is } from '../live/live.dto.js';
import { visibleText } from '../http/visibleText.js';
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
  Min,
  ValidateIf,
} from 'class-validator';
import { BAD_INPUT } from '../http/badInput.js';

export class RenameDto implements TitleRequest {
  @Transform(({ value }: { value: unknown }) => visibleText(value))
  @IsString()
  @Length(1, 200, { message: BAD_INPUT['title'] })
  title: string;
}

export class LessonDto implements LessonRequest {
  @IsOptional()
  @Transform(({ value }: { value: unknown }) => visibleText(value))
  @IsString()
  @Length(1, 200, { message: BAD_INPUT['title'] })
  title?: string;

  @ValidateIf((dto: LessonDto) => dto.folder !== undefined && dto.folder !== null)
  @IsUUID()
  folder?: string | null;

  @IsOptional() @IsBoolean() favourite?: boolean;

  @IsOptional()
  @Transform(({ value }: { value: unknown }) => (Array.isArray(value) ? value.map(visibleText) : value))
  @IsArray()
  @ArrayMaxSize(MOST_TAGS, { message: BAD_INPUT['tags'] })
  @Length(1, TAG_LENGTH, { each: true, message: BAD_INPUT['tags'] })
  tags?: string[];

  @IsOptional() @IsBoolean() archived?: boolean;
}

export class TeamDto implements TeamRequest {
  @IsArray() @ArrayMaxSize(200) @IsUUID(undefined, { each: true }) teachers: string[];
}

export class FolderDto implements FolderRequest {
  @Transform(({ value }: { value: unknown }) => visibleText(value))
  @IsString()
  @Length(1, 100, { message: BAD_INPUT['title'] })
  title: string;

  @ValidateIf((dto: FolderDto) => dto.parent !== null) @IsUUID() parent: string | null;
}

export class BlankLessonDto implements BlankLessonRequest {
  /** The first page; wide and plain where it is null. */
  @Is((sheet) => sheet === null || isBlankSheet(sheet), 'a blank page') sheet: BlankSheet | null;
}

export class InsertDocumentDto implements DocumentPagesRequest {
  @IsOptional() @IsString() @Length(1, 64) after?: string;
  @IsOptional() @IsString() @Length(0, 200) pages?: string;
  /** The class that the pages are for alone. */
  @IsOptional() @IsUUID() sitting?: string;
}

/** A page as a companion has it in its tab; `width` is how wide it is laid out there, CSS pixels. */
export class LivePageDto {
  @IsOptional() @IsString() @Length(1, 64) after?: string;
  @IsOptional() @Type(() => Number) @IsInt() @Min(320) @Max(4000) width?: number;
}

export class WebPageDto implements WebPageRequest {
  @IsString()
  @Length(1, 2000, { message: BAD_INPUT['web-address'] })
  address: string;

  @IsOptional() @IsString() @Length(1, 64) after?: string;
  /** A page that gets the copy in the place of the one it has. */
  @IsOptional() @IsString() @Length(1, 64) replace?: string;
  @IsOptional() @IsUUID() sitting?: string;
}

export class CopyPageDto implements CopyPageRequest {
  @IsUUID(undefined, { message: BAD_INPUT['target-lesson'] }) to: string;
  @IsOptional() @IsUUID() sitting?: string;
}
