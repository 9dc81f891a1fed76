import type { ClassWords, PollState, Removal } from '@doodla/core';
import { barsOf } from '@doodla/core';
import type { Paragraph } from '@doodla/core/notes';
import { paragraphsOf, plain } from '@doodla/core/notes';
import { removedAt, removedMarks } from '../room/removalWords';
import type { Room } from '../room/room';
import { t } from '../words';
import { timeOfDay } from '../words/dates';
import { optionNames } from '../words/optionNames';

/** What can be handed out of a class beside its pages. */
export const WORD_PARTS = ['notes', 'chat', 'polls', 'removals'] as const;
export type WordPart = (typeof WORD_PARTS)[number];

export const WORD_PART_NAMES = {
  notes: 'handout.notesOfClass',
  chat: 'handout.chatOfClass',
  polls: 'handout.pollsOfClass',
  removals: 'handout.removalsOfClass',
} as const satisfies Record<WordPart, string>;

/** What a class has said and done beside its marks. */
export interface Told extends ClassWords {
  removals: readonly Removal[];
}

export type Names = Pick<Room, 'nameOf' | 'pages'>;

/** Those parts of which there is something. */
export function partsOf({ notes, chat, polls, removals }: Told): WordPart[] {
  const has = {
    notes: notes !== null,
    chat: chat.length > 0,
    polls: polls.length > 0,
    removals: removals.length > 0,
  };
  return WORD_PARTS.filter((part) => has[part]);
}

/** What the chosen parts say, paragraph by paragraph. */
export function toldParagraphs(told: Told, chosen: ReadonlySet<WordPart>, room: Names): Paragraph[] {
  const paragraphs: Readonly<Record<WordPart, () => Paragraph[]>> = {
    notes: () => (told.notes ? paragraphsOf(told.notes) : []),
    chat: () => told.chat.map(({ at, name, words }) => plain(saidBy(at, name, words))),
    polls: () => told.polls.flatMap((poll, i) => pollParagraphs(poll, i + 1)),
    removals: () =>
      [...told.removals]
        .reverse()
        .map((removal) => plain(`${removedAt(removal, room)}: ${removedMarks(removal, room)}`)),
  };
  return partsOf(told)
    .filter((part) => chosen.has(part))
    .flatMap((part, i) => [
      plain(t(WORD_PART_NAMES[part]), i === 0 ? 'title' : 'heading'),
      ...paragraphs[part](),
    ]);
}

function saidBy(at: number, name: string | null, words: string): string {
  return t('handout.said', { time: timeOfDay(at), name: name ?? t('talk.theTeacher'), words });
}

function pollParagraphs(poll: PollState, number: number): Paragraph[] {
  const question = poll.question || t('handout.questionNumber', { number });
  const bars = barsOf({ ...poll, options: optionNames(poll) }, poll.answers ?? []);
  const bold = { ...plain(question), parts: [{ from: 0, to: question.length, bold: true }] };
  return [
    bold,
    ...bars.map(({ label, count }) => ({
      ...plain(t('handout.answersAre', { label, count })),
      indent: 1,
      lead: '•',
    })),
  ];
}
