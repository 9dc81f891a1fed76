import type { MarkOf, TextStyle } from '@doodla/core';

/** Where something is typed on a page, and what is there so far. */
export interface Typing {
  text: string;
  width: number;
  look: Pick<TextStyle, 'font' | 'size' | 'colour' | 'bold' | 'italic'>;
  label: string;
}

/** What pages and frames of the extension ask of its background; each is answered with what `Answers` says. */
export type Ask =
  | { ask: 'picture' }
  /** Something is to be typed; the frame that is typed in asks for it with `typing`. */
  | { ask: 'type'; typing: Typing }
  | { ask: 'typing' }
  | { ask: 'typed'; text: string; isDone: boolean };

export interface Answers {
  /** What is in sight of the tab, as the address of its data. */
  picture: string;
  type: undefined;
  typing: Typing | undefined;
  typed: undefined;
}

/** What the background tells a page that is written on. */
export type Tell = { tell: 'toggle' } | { tell: 'typed'; text: string; isDone: boolean };

export type TextLike = MarkOf<'text' | 'note'>;

/** An answer as it is sent: what was asked for, or why it could not be had. */
export type Reply<T> = { answer: T } | { problem: string };

/** Asks the background. Throws Error with its reason where it could not. */
export async function ask<Kind extends Ask['ask']>(
  message: Extract<Ask, { ask: Kind }>,
): Promise<Answers[Kind]> {
  const reply: Reply<Answers[Kind]> | undefined = await chrome.runtime.sendMessage(message);
  if (!reply) throw new Error('no answer');
  if ('problem' in reply) throw new Error(reply.problem);
  return reply.answer;
}
