import { Transform } from 'class-transformer';
import { IsString, Length, MaxLength } from 'class-validator';

export class JoinDto {
  @IsString() @MaxLength(40) code: string;

  @Transform(({ value }: { value: unknown }) =>
    typeof value === 'string' ? value.normalize('NFC').replace(/\s+/g, ' ').trim() : value,
  )
  @IsString()
  @Length(1, 40, { message: 'Please give your name, up to 40 letters.' })
  name: string;
}
