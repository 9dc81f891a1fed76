import type {
  Change,
  LooksMessage,
  PensMessage,
  PensOfMessage,
  PenState,
  Rules,
  RulesMessage,
  Scene,
  ShowCopyMessage,
  ShownCopy,
  StudentTable,
  TablesMessage,
  Way,
  WaysMessage,
} from '@doodla/core';
import {
  arePens,
  areTables,
  areWays,
  isChangeList,
  isId,
  isRulesPart,
  isScenePart,
  isShownCopy,
  MAX_COORDINATE,
  unpackedInput,
} from '@doodla/core';
import { Transform, Type } from 'class-transformer';
import {
  IsBoolean,
  IsIn,
  IsInt,
  IsNumber,
  IsObject,
  IsOptional,
  IsUUID,
  Max,
  Min,
  registerDecorator,
  ValidateIf,
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

export class ReadDto {
  @Type(() => LogRefDto) @IsObject() @ValidateNested() log: LogRefDto;
  @IsId() page: string;
  @IsInt() @Min(0) read: number;
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

export class EnterDto {
  @IsUUID() sitting: string;
}

export class TurnDto extends EnterDto {
  @IsId() page: string;
}

export class PensDto extends EnterDto implements PensMessage {
  @IsBoolean() up: boolean;
}

export class PensOfDto extends EnterDto implements PensOfMessage {
  @Is(arePens, 'pens of students') pens: Record<string, PenState>;
}

export class WaysDto extends EnterDto implements WaysMessage {
  @Is(areWays, 'ways of pages') ways: Record<string, Way>;
}

export class TablesDto extends EnterDto implements TablesMessage {
  @Is(areTables, 'tables of students') tables: StudentTable[];
}

export class ShowCopyDto extends EnterDto implements ShowCopyMessage {
  @ValidateIf(({ copy }: ShowCopyDto) => copy !== null) @Is(isShownCopy, 'a copy') copy: ShownCopy | null;
}

export class RulesDto extends EnterDto implements RulesMessage {
  @IsObject() @Is(isRulesPart, 'a part of the rules') set: Partial<Rules>;
}

export class LooksDto extends EnterDto implements LooksMessage {
  @IsBoolean() away: boolean;
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
