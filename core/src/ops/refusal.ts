/** Why an operation is refused, with the sentence that its author reads. */
export const REFUSALS = {
  'pens-down': 'Pens are down: your teacher has stopped writing for now. Your last mark was taken back.',
  'not-yours': 'That mark belongs to somebody else, so it was left as it is.',
  locked: 'That mark is locked, so it was left as it is.',
  'no-such-page': 'The page you wrote on is no longer there, so the mark was taken back.',
  'last-page': 'A lesson keeps at least one page, so this one was left where it is.',
  'no-such-mark': 'The mark you changed is no longer there.',
  'already-there': 'That was already on the page.',
  'not-allowed': 'Only the teacher can do that.',
  'bad-mark': 'That mark could not be read, so it was not kept. Please draw it again.',
  'too-large': 'That is too large to keep in one go. Please do it in smaller parts.',
  'too-many': 'This page is full. Please go on with a new page.',
  'tool-away': 'Your teacher has put that tool away for now, so nothing was placed.',
  'not-your-turn': 'It is not your turn yet.',
  ended: 'This class has ended, so nothing more can be written in it.',
  'too-fast': 'That was too much at once. Please wait a moment and try again.',
} as const;

export type RefusalCode = keyof typeof REFUSALS;

/** Thrown where an operation is refused. The message is fit to be shown. */
export class Refusal extends Error {
  constructor(readonly code: RefusalCode) {
    super(REFUSALS[code]);
    this.name = 'Refusal';
  }
}
