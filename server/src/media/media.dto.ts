import type { MediaRequest } from '@doodla/core';
import { Type } from 'class-transformer';
import { IsInt, IsOptional, IsString, IsUUID, Length, Max, Min } from 'class-validator';

/** Where a recording goes, and the size of its picture in pixels as the browser has found it. */
export class InsertMediaDto implements MediaRequest {
  @IsOptional() @IsString() @Length(1, 64) after?: string;
  @IsOptional() @IsUUID() sitting?: string;
  @IsOptional() @Type(() => Number) @IsInt() @Min(16) @Max(8192) width?: number;
  @IsOptional() @Type(() => Number) @IsInt() @Min(16) @Max(8192) height?: number;
}
