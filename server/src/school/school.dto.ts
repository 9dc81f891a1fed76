import type {
  AcceptRequest,
  AdminRequest,
  GiveRequest,
  TeacherInviteRequest,
  LeaveRequest,
  LimitName,
  SchoolLimits,
  SchoolNameRequest,
} from '@doodla/core';
import { LIMITS } from '@doodla/core';
import { applyDecorators } from '@nestjs/common';
import { Transform } from 'class-transformer';
import { IsBoolean, IsEmail, IsInt, IsOptional, IsString, IsUUID, Length, Max, Min } from 'class-validator';
import { BAD_INPUT } from '../http/badInput.js';
import { visibleText } from '../http/visibleText.js';
import { IsSchoolName } from '../schools/schoolName.js';

const asName = ({ value }: { value: unknown }) => visibleText(value);
const trim = ({ value }: { value: unknown }) => (typeof value === 'string' ? value.trim() : value);

export class InviteDto implements TeacherInviteRequest {
  @Transform(asName)
  @IsString()
  @Length(1, 80, { message: BAD_INPUT['teacher-name'] })
  name: string;

  @Transform(trim)
  @IsEmail({}, { message: BAD_INPUT['email'] })
  email: string;
}

/** What the address of the school's own sign-in page ends with; none for the first school. */
export class SignInAtDto {
  @IsOptional() @IsString() @Length(1, 100) at?: string;
}

export class AcceptDto implements AcceptRequest {
  @Transform(asName)
  @IsString()
  @Length(1, 80, { message: BAD_INPUT['teacher-name'] })
  name: string;

  @IsString() @Length(10, 200, { message: BAD_INPUT['password-short'] }) password: string;
}

export class AdminDto implements AdminRequest {
  @IsBoolean() admin: boolean;
}

export class SchoolNameDto implements SchoolNameRequest {
  @IsSchoolName() name: string;
}

export class LeaveDto implements LeaveRequest {
  @IsUUID() to: string;
}

export class GiveDto implements GiveRequest {
  @IsUUID() to: string;
}

const Limit = (name: LimitName) =>
  applyDecorators(
    IsInt({ message: BAD_INPUT['limit'] }),
    Min(LIMITS[name].least, { message: BAD_INPUT['limit'] }),
    Max(LIMITS[name].most, { message: BAD_INPUT['limit'] }),
  );

export class LimitsDto implements SchoolLimits {
  @Limit('maxUploadMb') maxUploadMb: number;
  @Limit('maxPages') maxPages: number;
  @Limit('retentionDays') retentionDays: number;
  @IsBoolean() tellOfRecording: boolean;
}
