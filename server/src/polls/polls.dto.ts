import type {
  AnswerMessage,
  AskMessage,
  HandMessage,
  Poll,
  PollMessage,
  PollValue,
  Reaction,
  ReactMessage,
} from '@doodla/core';
import { isPoll, isReaction, mayAnswer } from '@doodla/core';
import { IsBoolean, IsOptional } from 'class-validator';
import { EnterDto, Is, IsId } from '../live/live.dto.js';

export class AskDto extends EnterDto implements AskMessage {
  @Is(isPoll, 'a poll') poll: Poll;
}

export class AnswerDto extends EnterDto implements AnswerMessage {
  @IsId() poll: string;
  @Is(mayAnswer, 'an answer') value: PollValue;
}

export class PollDto extends EnterDto implements PollMessage {
  @IsId() poll: string;
  @IsBoolean() open: boolean;
  @IsBoolean() away: boolean;
}

export class HandDto extends EnterDto implements HandMessage {
  @IsBoolean() up: boolean;
  @IsOptional() @IsId() who?: string;
}

export class ReactDto extends EnterDto implements ReactMessage {
  @Is(isReaction, 'a reaction') which: Reaction;
}
