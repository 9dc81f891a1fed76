import type { EraseSchoolRequest, NewSchoolRequest, SchoolChangeRequest, SchoolSignIn } from '@doodla/core';
import { MOST_SCHOOL_BYTES, MOST_SCHOOL_TEACHERS, SCHOOL_NAME_LENGTH } from '@doodla/core';
import { applyDecorators } from '@nestjs/common';
import { Transform, Type } from 'class-transformer';
import {
  IsBoolean,
  IsEmail,
  IsInt,
  IsOptional,
  IsString,
  IsUrl,
  Length,
  Matches,
  Max,
  Min,
  ValidateIf,
  ValidateNested,
} from 'class-validator';
import { BAD_INPUT } from '../http/badInput.js';
import { visibleText } from '../http/visibleText.js';
import { IsSchoolName } from '../schools/schoolName.js';

const trim = ({ value }: { value: unknown }) => (typeof value === 'string' ? value.trim() : value);
const lower = ({ value }: { value: unknown }) =>
  typeof value === 'string' ? value.trim().toLowerCase() : value;

const IsSlug = () =>
  applyDecorators(
    Transform(lower),
    Matches(/^[a-z0-9](?:[a-z0-9-]{0,38}[a-z0-9])?$/, { message: BAD_INPUT['school-slug'] }),
  );

const IsAddress = () => applyDecorators(Transform(trim), IsEmail({}, { message: BAD_INPUT['email'] }));

const IsPersonName = () =>
  applyDecorators(
    Transform(({ value }: { value: unknown }) => visibleText(value)),
    IsString(),
    Length(1, 80, { message: BAD_INPUT['teacher-name'] }),
  );

/** A number up to a most, or null for no end. */
const IsGiven = (most: number) =>
  applyDecorators(
    ValidateIf((_, value) => value !== undefined && value !== null),
    IsInt({ message: BAD_INPUT['school-room'] }),
    Min(1, { message: BAD_INPUT['school-room'] }),
    Max(most, { message: BAD_INPUT['school-room'] }),
  );

export class NewSchoolDto implements NewSchoolRequest {
  @IsSchoolName() name: string;
  @IsSlug() slug: string;
  @IsPersonName() adminName: string;
  @IsAddress() adminEmail: string;
}

export class SchoolSignInDto implements SchoolSignIn {
  @IsUrl(
    { require_tld: false, protocols: ['http', 'https'], require_protocol: true },
    { message: BAD_INPUT['school-issuer'] },
  )
  issuer: string;

  @IsString() @Length(1, 300, { message: BAD_INPUT['school-client'] }) clientId: string;
  @IsOptional() @IsString() @Length(1, 2000, { message: BAD_INPUT['school-client'] }) clientSecret?: string;
  @IsBoolean() trustEmail: boolean;
}

export class SchoolChangeDto implements SchoolChangeRequest {
  @IsOptional() @IsSchoolName() name?: string;
  @IsOptional() @IsSlug() slug?: string;
  @IsGiven(MOST_SCHOOL_BYTES) maxBytes?: number | null;
  @IsGiven(MOST_SCHOOL_TEACHERS) maxTeachers?: number | null;
  @IsOptional() @ValidateNested() @Type(() => SchoolSignInDto) signIn?: SchoolSignInDto | null;
  @IsOptional() @IsBoolean() closed?: boolean;
}

export class EraseSchoolDto implements EraseSchoolRequest {
  @IsString() @Length(0, SCHOOL_NAME_LENGTH) name: string;
}
