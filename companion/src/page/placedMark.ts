import type { Mark, Matrix, Rect } from '@doodla/core';
import { IDENTITY, applyMatrix, markBounds, patchMark, transformPatch } from '@doodla/core';
import type { GluedMark } from '@doodla/core/glue';
import { placement } from '@doodla/core/glue';
import type { Hold } from './hold';
import { shownWithin } from './scrollers';

/** A mark of the page, what it belongs to as that is now, and how it lies. */
export class PlacedMark {
  /** How it lies on the page; undefined where what it belongs to is gone or hidden. */
  private lies: Matrix | undefined;
  /** The part of the page in which it is seen. */
  private room: Rect | undefined;
  /** The mark as it would be made now, for hands and tools. */
  private now: Mark | undefined;
  /** What is drawn: the mark as it was made, but marked words, whose lines break elsewhere by and by. */
  private drawn: Mark;
  private readonly middle: { x: number; y: number };

  constructor(
    readonly glued: GluedMark,
    public hold: Hold | undefined,
  ) {
    this.drawn = glued.mark;
    const { x, y, width, height } = markBounds(glued.mark);
    this.middle = { x: x + width / 2, y: y + height / 2 };
  }

  get matrix(): Matrix | undefined {
    return this.lies;
  }

  get clip(): Rect | undefined {
    return this.room;
  }

  /** Whether it stays in the window while the page scrolls. */
  get stays(): boolean {
    return this.hold?.stays ?? false;
  }

  get picture(): Mark {
    return this.drawn;
  }

  /** Looks again where it lies. Returns whether that is elsewhere than before. */
  measure(top: Document): boolean {
    const { glued, hold } = this;
    const box = hold?.box();
    const matrix = box && placement(glued.glue, box, this.middle);
    const room = hold && hold.scrollers.length > 0 ? shownWithin(hold.scrollers, top) : undefined;
    const isSame =
      sameNumbers(matrix, this.lies) && sameNumbers(room && sides(room), this.room && sides(this.room));
    this.room = room;
    if (matrix && hold?.lines && glued.mark.kind === 'quote')
      return this.measureWords(hold.lines()) || !isSame;
    if (isSame) return false;
    this.lies = matrix;
    this.now = undefined;
    return true;
  }

  /** The mark as it lies now; undefined where it lies nowhere. */
  get shown(): Mark | undefined {
    const { lies } = this;
    if (!lies) return undefined;
    this.now ??= moved(this.drawn, lies);
    return this.now;
  }

  private measureWords(rects: readonly number[]): boolean {
    if (rects.length === 0) {
      const was = this.lies;
      this.lies = undefined;
      return was !== undefined;
    }
    const before = (this.drawn as Extract<Mark, { kind: 'quote' }>).rects;
    const isSame = this.lies !== undefined && sameNumbers(rects, before);
    this.lies = IDENTITY;
    if (isSame) return false;
    this.drawn = { ...this.glued.mark, rects } as Mark;
    this.now = this.drawn;
    return true;
  }
}

const sides = ({ x, y, width, height }: Rect) => [x, y, width, height];

/** Rounding of a thousandth of a pixel is no move. */
function sameNumbers(a: readonly number[] | undefined, b: readonly number[] | undefined): boolean {
  if (!a || !b) return a === b;
  return a.length === b.length && a.every((value, i) => Math.abs(value - b[i]!) < 1e-3);
}

/** A mark after a map that only enlarges and moves. */
function moved(mark: Mark, matrix: Matrix): Mark {
  const [fx, , , fy, dx, dy] = matrix;
  if (fx === 1 && fy === 1 && dx === 0 && dy === 0) return mark;
  const isEnlarged = Math.abs(fx - 1) > 1e-6 || Math.abs(fy - 1) > 1e-6;
  const larger = isEnlarged
    ? patchMark(mark, transformPatch(mark, { kind: 'resize', fx, fy, x: 0, y: 0 }))
    : mark;
  const [x, y] = applyMatrix(matrix, 0, 0);
  return patchMark(larger, transformPatch(larger, { kind: 'move', dx: x, dy: y }));
}
