import type { Mark, PlacedQuote } from '@doodla/core';
import type { Workspace } from '../workspace/workspace';
import type { Gesture, PenPoint, Preview } from './gesture';

type Words = (from: PenPoint, to: PenPoint) => PlacedQuote | undefined;

/** Marks words of a page from where the pointer goes down to where it comes up, glued to what they say. */
export class WordsGesture implements Gesture {
  private last: PenPoint;
  private readonly common;

  constructor(
    private readonly workspace: Workspace,
    private readonly start: PenPoint,
    private readonly words: Words,
  ) {
    this.last = start;
    this.common = workspace.newMark();
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
    if (mark) this.workspace.target.perform([{ do: 'add', mark }]);
  }

  cancel(): void {
    // Nothing was put on the page yet.
  }

  private mark(): Mark | undefined {
    const quote = this.words(this.start, this.last);
    if (!quote || !this.common) return undefined;
    const { highlighter, wordsLook } = this.workspace.penCase.get();
    const { colour, opacity } = highlighter;
    return { ...this.common, ...quote, kind: 'quote', look: wordsLook, style: { colour, opacity } };
  }
}
