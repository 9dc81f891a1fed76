import type { PreferenceReply, SetUpRequest, SignInRequest } from '@doodla/core';
import { Transform } from 'class-transformer';
import { visibleText } from '../http/visibleText.js';
import { IsEmail, IsObject, IsOptional, IsString, Length } from 'class-validator';
import { BAD_INPUT } from '../http/badInput.js';

const trim = ({ value }: { value: unknown }) => (typeof value === 'string' ? value.trim() : value);

export class SignInDto implements SignInRequest {
  @Transform(trim)
  @IsEmail({}, { message: BAD_INPUT['email'] })
  email: string;

  @IsString() @Length(1, 200, { message: BAD_INPUT['password-missing'] }) password: string;

  @IsOptional() @IsString() @Length(1, 100) school?: string;
}

export class SetupDto extends SignInDto implements SetUpRequest {
  @Transform(({ value }: { value: unknown }) => visibleText(value))
  @IsString()
  @Length(1, 80, { message: BAD_INPUT['teacher-name'] })
  name: string;

  @IsString()
  @Length(10, 200, { message: BAD_INPUT['password-short'] })
  declare password: string;
}

export class PreferenceDto implements PreferenceReply {
  @IsObject({ message: 'A setting is an object.' }) value: object;
}
