import { Transform } from 'class-transformer';
import { IsString, Length } from 'class-validator';

export class RenameDto {
  @Transform(({ value }: { value: unknown }) => (typeof value === 'string' ? value.trim() : value))
  @IsString()
  @Length(1, 200, { message: 'Please give a title of up to 200 letters.' })
  title: string;
}
