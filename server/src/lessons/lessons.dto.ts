import { Transform } from 'class-transformer';
import { IsOptional, IsString, IsUUID, Length } from 'class-validator';

export class RenameDto {
  @Transform(({ value }: { value: unknown }) => (typeof value === 'string' ? value.trim() : value))
  @IsString()
  @Length(1, 200, { message: 'Please give a title of up to 200 letters.' })
  title: string;
}

export class CopyPageDto {
  @IsUUID(undefined, { message: 'Please choose the lesson that the page should go to.' }) to: string;
  @IsOptional() @IsUUID() sitting?: string;
}
