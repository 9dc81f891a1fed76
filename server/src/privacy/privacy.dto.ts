import type { StudentNameRequest } from '@doodla/core';
import { MAX_NAME } from '@doodla/core';
import { IsString, Length } from 'class-validator';

export class StudentNameDto implements StudentNameRequest {
  @IsString() @Length(1, MAX_NAME) name: string;
}
