import type { Mark, MarkOf } from '../marks/mark.js';
import { isFilledInk } from '../marks/stroke/strokePaint.js';
import type { WrittenInk } from './ink/packedInk.js';
import { packInk } from './ink/packedInk.js';
import type { HandoutPage, HandoutSources } from './sources.js';

/** Strokes below which it takes longer to have a thread for them than to work them out. */
const ENOUGH = 200;
/** Pages whose ink is worked out before their turn; more would only take room. */
const PAGES_AHEAD = 12;

/** What fills the ink of a page. */
export class InkOfPage {
  private next = 0;

  constructor(
    private readonly strokes: readonly Mark[] = [],
    private readonly written?: WrittenInk,
  ) {}

  /** What fills a stroke; undefined where it was not worked out. Strokes are mostly asked for in their order. */
  of(stroke: Mark): Uint8Array | undefined {
    const i = this.strokes[this.next] === stroke ? this.next : this.strokes.indexOf(stroke);
    if (!this.written || i < 0) return undefined;
    const { bytes, ends } = this.written;
    this.next = i + 1;
    return bytes.subarray(ends[i - 1] ?? 0, ends[i]);
  }
}

const NONE = new InkOfPage();

/** The ink of the pages that come next, worked out elsewhere while those before are put together. */
export class InkAhead {
  private readonly asked: Promise<InkOfPage>[] = [];
  private readonly write: HandoutSources['ink'];

  constructor(
    private readonly pages: readonly HandoutPage[],
    write: HandoutSources['ink'],
  ) {
    const strokes = pages.reduce((sum, { marks }) => sum + marks.filter(isInk).length, 0);
    this.write = strokes < ENOUGH ? undefined : write;
    this.askUpTo(PAGES_AHEAD);
  }

  /** What is there of the n-th page's ink. Pages are taken from the first to the last. */
  async take(n: number): Promise<InkOfPage> {
    this.askUpTo(n + PAGES_AHEAD);
    const ink = await this.asked[n]!;
    this.asked[n] = Promise.resolve(NONE);
    return ink;
  }

  private askUpTo(end: number): void {
    for (const { marks } of this.pages.slice(this.asked.length, end))
      this.asked.push(this.ask(marks.filter(isInk)));
  }

  private async ask(strokes: readonly MarkOf<'stroke'>[]): Promise<InkOfPage> {
    if (!this.write || strokes.length === 0) return NONE;
    try {
      return new InkOfPage(strokes, await this.write(packInk(strokes)));
    } catch {
      // What nobody else could work out is worked out where it is needed.
      return NONE;
    }
  }
}

function isInk(mark: Mark): mark is MarkOf<'stroke'> {
  return mark.kind === 'stroke' && isFilledInk(mark.style);
}
