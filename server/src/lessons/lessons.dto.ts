import type {
  BlankLessonRequest,
  CopyPageRequest,
  DocumentPagesRequest,
  TitleRequest,
  WebPageRequest,
} from '@doodla/core';
import { Transform } from 'class-transformer';
import type { BlankSheet } from '@doodla/core';
import { isBlankSheet } from '@doodla/core';
import { Is } from '../live/live.dto.js';
import { visibleText } from '../http/visibleText.js';
import { IsOptional, IsString, IsUUID, Length } from 'class-validator';
import { BAD_INPUT } from '../http/badInput.js';

export class RenameDto implements TitleRequest {
  @Transform(({ value }: { value: unknown }) => visibleText(value))
  @IsString()
  @Length(1, 200, { message: BAD_INPUT['title'] })
  title: string;
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
