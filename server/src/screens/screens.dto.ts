import type { Pane, ScreenMove, ScreenPart, SoundPart, ViewPicture } from '@doodla/core';
import { arePanes, hasExactly, isViewPictures } from '@doodla/core';
import { IsBoolean, IsIn, IsInt, IsNumber, IsOptional, IsUUID, Matches, Max, Min } from 'class-validator';
import { EnterDto, Is, IsId } from '../live/live.dto.js';

const MAX_SIDE = 8192;

export class ScreenSizeDto extends EnterDto {
  @IsInt() @Min(16) @Max(MAX_SIDE) width: number;
  @IsInt() @Min(16) @Max(MAX_SIDE) height: number;
}

export class ScreenStartDto extends ScreenSizeDto {
  @IsOptional() @IsId() page?: string;
}

export class ScreenShowDto extends EnterDto {
  @IsId() page: string;
}

export class ScreenTurnDto extends ScreenShowDto {
  @Is(arePanes, 'a list of panes') panes: Pane[];
}

export class ScreenKeepDto extends ScreenShowDto {
  @Is(isViewPictures, 'a list of pictures') pictures: ViewPicture[];
}

export class ScreenAllowDto extends EnterDto {
  @IsUUID() student: string;
  @IsBoolean() may: boolean;
}

export class ScreenPartDto extends ScreenSizeDto implements ScreenPart {
  @IsId() page: string;
  @IsIn(['video', 'picture']) kind: 'video' | 'picture';
  @IsBoolean() key: boolean;
  @IsOptional() @Matches(/^[\w.]{1,40}$/) codec?: string;
  @IsInt() @Min(0) @Max(MAX_SIDE) x: number;
  @IsInt() @Min(0) @Max(MAX_SIDE) y: number;
  @IsOptional() @Is(isMove, 'a move') move?: ScreenMove;
  @Is(arePanes, 'a list of panes') panes: Pane[];
  @IsBoolean() certain: boolean;
  @IsNumber() at: number;
}

export class SoundPartDto extends EnterDto implements SoundPart {
  @IsNumber() @Min(0) @Max(1e15) at: number;
  @IsInt() @Min(8000) @Max(48_000) rate: number;
  @IsInt() @Min(1) @Max(2) channels: number;
}

function isMove(value: unknown): boolean {
  const whole = (part: unknown) => Number.isInteger(part) && Math.abs(part as number) <= MAX_SIDE;
  return hasExactly(value, { x: whole, y: whole, width: whole, height: whole, dx: whole, dy: whole });
}
