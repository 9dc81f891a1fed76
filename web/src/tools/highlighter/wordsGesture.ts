import type { Mark, PlacedQuote } from '@doodla/core';
import type { Desk } from '../../desk/desk';
import type { Preview } from '../../canvas/preview';
import type { Gesture, PenPoint } from '../../desk/gesture';

type Words = (from: PenPoint, to: PenPoint) => PlacedQuote | undefined;

/** Marks words of a page from where the pointer goes down to where it comes up, glued to what they say. */
export class WordsGesture implements Gesture {
  private last: PenPoint;
  private readonly common;

  constructor(
    private readonly desk: Pick<Desk, 'newMark' | 'penCase' | 'target'>,
    private readonly start: PenPoint,
    private readonly words: Words,
  ) {
    this.last = start;
    this.common = desk.newMark();
  }

  get preview(): Preview {
    const mark = this.mark();
    return mark ? { marks: [mark] } : {};
  }

  move(points: readonly PenPoint[]): void {
    this.last = points.at(-1) ?? this.last;
  }

  end(): void {
    const mark = this.mark();
    if (mark) this.desk.target.perform([{ do: 'add', mark }]);
  }

  cancel(): void {
    // Nothing was put on the page yet.
  }

  private mark(): Mark | undefined {
    const quote = this.words(this.start, this.last);
    if (!quote || !this.common) return undefined;
    const { highlighter, wordsLook } = this.desk.penCase.get();
    const { colour, opacity } = highlighter;
    return { ...this.common, ...quote, kind: 'quote', look: wordsLook, style: { colour, opacity } };
  }
}
