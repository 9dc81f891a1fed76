import type { Change, InkStyle, Scene, Space } from '@doodla/core';
import { isChangeList, isId, isPointList, isScenePart, MAX_COORDINATE, NATURES } from '@doodla/core';
import { Type } from 'class-transformer';
import {
  ArrayMaxSize,
  ArrayMinSize,
  IsBoolean,
  IsHexColor,
  IsIn,
  IsInt,
  IsNumber,
  IsObject,
  IsOptional,
  IsUUID,
  Matches,
  Max,
  Min,
  registerDecorator,
  ValidateNested,
} from 'class-validator';

/** Checks with a function of the core. */
export function Is(check: (value: unknown) => boolean, what: string): PropertyDecorator {
  return (target, property) =>
    registerDecorator({
      name: what,
      target: target.constructor,
      propertyName: property as string,
      validator: { validate: check, defaultMessage: () => `${String(property)} is not ${what}` },
    });
}

export const IsId = () => Is(isId, 'an id');

export class LogRefDto {
  @IsIn(['lesson', 'sitting']) kind: 'lesson' | 'sitting';
  @IsUUID() id: string;
}

export class OpenDto {
  @Type(() => LogRefDto) @IsObject() @ValidateNested() log: LogRefDto;
  @IsOptional() @IsInt() @Min(0) since?: number;
}

export class OperationDto {
  @IsId() id: string;
  @Is(isChangeList, 'a list of changes') changes: Change[];
  @IsOptional() @IsId() undoes?: string;
}

export class SubmitDto {
  @Type(() => LogRefDto) @IsObject() @ValidateNested() log: LogRefDto;
  @Type(() => OperationDto) @IsObject() @ValidateNested() operation: OperationDto;
}

export class InkStyleDto implements InkStyle {
  @IsIn(NATURES) nature: InkStyle['nature'];
  @IsHexColor() colour: string;
  @IsNumber() @Min(0.5) @Max(200) width: number;
  @IsNumber() @Min(0.05) @Max(1) opacity: number;
}

export class DrawDto {
  @Type(() => LogRefDto) @IsObject() @ValidateNested() log: LogRefDto;
  @IsId() page: string;
  @Matches(/^(class|(table|student):[\w-]{1,64})$/) space: Space;
  @IsId() stroke: string;
  @Type(() => InkStyleDto) @IsObject() @ValidateNested() style: InkStyleDto;
  @IsBoolean() pressure: boolean;
  @IsInt() @Min(0) from: number;
  @ArrayMinSize(4) @ArrayMaxSize(2000) @Is(isPointList, 'a list of points') points: number[];
  @IsOptional() @IsInt() @Min(200) @Max(60_000) fade?: number;
}

export class EnterDto {
  @IsUUID() sitting: string;
}

export class TurnDto extends EnterDto {
  @IsId() page: string;
}

export class PensDto extends EnterDto {
  @IsBoolean() up: boolean;
}

export class SceneDto extends EnterDto {
  @IsObject() @Is(isScenePart, 'a part of a scene') set: Partial<Scene>;
  @IsBoolean() moving: boolean;
}

export class PointDto extends TurnDto {
  @IsNumber() @Min(-MAX_COORDINATE) @Max(MAX_COORDINATE) x: number;
  @IsNumber() @Min(-MAX_COORDINATE) @Max(MAX_COORDINATE) y: number;
  @IsBoolean() gone: boolean;
}
