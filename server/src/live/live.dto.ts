import type { Change, DrawMessage, InkHead, InkStyle, Scene, Space } from '@doodla/core';
import {
  isChangeList,
  isId,
  isNumberIn,
  isPointList,
  isRecord,
  isScenePart,
  MAX_COORDINATE,
  MAX_POINTS,
  NATURES,
  unpackedInput,
  unpackPoints,
} from '@doodla/core';
import { plainToInstance, Transform, Type } from 'class-transformer';
import {
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
  validateSync,
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

export class ReadDto {
  @Type(() => LogRefDto) @IsObject() @ValidateNested() log: LogRefDto;
  @IsId() page: string;
}

export class OperationDto {
  @IsId() id: string;
  @Transform(({ value }: { value: unknown }) => unpackedInput(value))
  @Is(isChangeList, 'a list of changes')
  changes: Change[];
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

export class InkHeadDto implements InkHead {
  @Matches(/^(class|(table|student):[\w-]{1,64})$/) space: Space;
  @Type(() => InkStyleDto) @IsObject() @ValidateNested() style: InkStyleDto;
  @IsBoolean() pressure: boolean;
  @IsOptional() @IsInt() @Min(200) @Max(60_000) fade?: number;
}

/** Longest part of a stroke in one message, as packed points. */
const MAX_INK_PART = 20_000;

/** A part of wet ink, checked by hand since thousands come in a second. */
export function isDrawMessage(value: unknown): value is DrawMessage {
  if (!isRecord(value) || !isRecord(value.log)) return false;
  const { log, page, stroke, head, from, points } = value;
  return (
    isId(log.id) &&
    isId(page) &&
    isId(stroke) &&
    isNumberIn(from, 0, MAX_POINTS) &&
    typeof points === 'string' &&
    points.length <= MAX_INK_PART &&
    isPointList(unpackPoints(points)) &&
    (head === undefined || isInkHead(head))
  );
}

function isInkHead(value: unknown): boolean {
  return isRecord(value) && validateSync(plainToInstance(InkHeadDto, value)).length === 0;
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
