import type { IdeaRules, IdeasMessage, VoteMessage } from '@doodla/core';
import { areIdeas } from '@doodla/core';
import { IsBoolean, IsOptional } from 'class-validator';
import { EnterDto, Is, IsId } from '../live/live.dto.js';

export class IdeasDto extends EnterDto implements IdeasMessage {
  @Is(areIdeas, 'ways of collecting ideas') set: Record<string, IdeaRules | null>;
}

export class VoteDto extends EnterDto implements VoteMessage {
  @IsId() page: string;
  @IsOptional() @IsId() note?: string;
  @IsOptional() @IsBoolean() up?: boolean;
}
