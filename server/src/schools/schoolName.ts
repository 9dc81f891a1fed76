import { SCHOOL_NAME_LENGTH } from '@doodla/core';
import { applyDecorators } from '@nestjs/common';
import { Transform } from 'class-transformer';
import { IsString, Length } from 'class-validator';
import { BAD_INPUT } from '../http/badInput.js';
import { visibleText } from '../http/visibleText.js';

/** What a school is called. */
export const IsSchoolName = () =>
  applyDecorators(
    Transform(({ value }: { value: unknown }) => visibleText(value)),
    IsString(),
    Length(1, SCHOOL_NAME_LENGTH, { message: BAD_INPUT['school-name'] }),
  );
