import type { PreferenceReply, SetUpRequest, SignInRequest } from '@doodla/core';
import { Transform } from 'class-transformer';
import { visibleText } from '../http/visibleText.js';
import { IsEmail, IsObject, IsString, Length } from 'class-validator';

const trim = ({ value }: { value: unknown }) => (typeof value === 'string' ? value.trim() : value);

export class SignInDto implements SignInRequest {
  @Transform(trim)
  @IsEmail({}, { message: 'Please give an e-mail address, like name@school.example.' })
  email: string;

  @IsString() @Length(1, 200, { message: 'Please give your password.' }) password: string;
}

export class SetupDto extends SignInDto implements SetUpRequest {
  @Transform(({ value }: { value: unknown }) => visibleText(value))
  @IsString()
  @Length(1, 80, { message: 'Please give your name, up to 80 letters.' })
  name: string;

  @IsString()
  @Length(10, 200, { message: 'Please choose a password of at least 10 characters.' })
  declare password: string;
}

export class PreferenceDto implements PreferenceReply {
  @IsObject({ message: 'A setting is an object.' }) value: object;
}
