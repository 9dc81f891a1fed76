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
import { Transform } from 'class-transformer';
import { IsBoolean, IsOptional } from 'class-validator';
import { visibleText } from '../http/visibleText.js';
import { EnterDto, Is, IsId } from '../live/live.dto.js';

export class AskDto extends EnterDto implements AskMessage {
  @Transform(({ value }: { value: unknown }) => withVisibleText(value)) @Is(isPoll, 'a poll') poll: Poll;
}

export class AnswerDto extends EnterDto implements AnswerMessage {
  @IsId() poll: string;
  @Transform(({ value }: { value: unknown }) => visibleText(value))
  @Is(mayAnswer, 'an answer')
  value: PollValue;
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

/** A question as it is seen, by everybody alike. */
function withVisibleText(poll: unknown): unknown {
  if (typeof poll !== 'object' || poll === null) return poll;
  const { question, options } = poll as Record<string, unknown>;
  return {
    ...poll,
    question: visibleText(question),
    options: Array.isArray(options) ? options.map(visibleText) : options,
  };
}
