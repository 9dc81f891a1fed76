import type { Checks } from '../checks/fields.js';
import type { Rect } from '../geometry/rect.js';
import type { TurnedBox } from '../geometry/turnedBox.js';
import type { PaintItem } from '../paint/items.js';
import type { FixedField, SharedFields } from './shared.js';
import type { Transform } from './transform.js';

/** What students are allowed, the least first: ink alone, words too, everything. */
export const FREEDOMS = ['ink', 'words', 'everything'] as const;
export type Freedom = (typeof FREEDOMS)[number];

export type Point = readonly [number, number];

/** What there is to hit of a mark: lines of some reach, and whether the inside counts too. Page units. */
export interface Target {
  lines: readonly (readonly Point[])[];
  reach: number;
  solid: boolean;
}

/** Any mark as far as its kind's table needs to know it. */
export type Stored = SharedFields & { kind: string; style: object };

/** What may be changed of a mark. */
export type PatchOf<M extends Stored> = Partial<Omit<M, FixedField | 'style'>> & {
  style?: Partial<M['style']>;
};

/** What a mark is to those who read or hear of it. */
export type MarkName =
  | 'fill'
  | 'formula'
  | 'plot'
  | 'highlight'
  | 'ink'
  | 'note'
  | 'patch'
  | 'path'
  | 'picture'
  | 'quote'
  | 'shape'
  | 'stamp'
  | 'text';

/** What a mark lacks for those who cannot see well; `ratio` is its contrast now. */
export type Lack =
  | { what: 'contrast'; ratio: number; better: 'darker' | 'lighter' }
  | { what: 'small' }
  | { what: 'description' };

/** All that is to be known of a kind of mark; `kinds.ts` has the table of them. Lengths are page units. */
interface KindOf<M extends Stored> {
  /** Fields beside the shared ones, those of them that may be missing, and those of its style. */
  readonly fields: Checks;
  readonly optional?: Checks;
  readonly style: Checks;
  /** What it is where marks are listed. */
  name(mark: M): MarkName;
  /** What is to be said of its content: its words, or which form it is. */
  content(mark: M): string | undefined;
  /** What keeps those who cannot see well from having it; `paper` is the colour behind it. */
  problems?(mark: M, paper: string): Lack[];
  /** Smallest upright rectangle that holds all that is drawn of it. */
  bounds(mark: M): Rect;
  target(mark: M): Target;
  /** The patch that does a transform to it. */
  transform(mark: M, transform: Transform): PatchOf<M>;
  paint(mark: M): PaintItem[];
  /** The area it takes in, as polygons (even-odd rule); none where it is only lines. */
  area(mark: M): readonly (readonly Point[])[];
  /** Whether nothing shows through it within its area. */
  hides(mark: M): boolean;
  /** The least that a student has to be allowed to put one. */
  readonly needs: Freedom;
  /** Whether it goes along when pages are handed out, kept or pictured. */
  readonly exported: boolean;
}

/** A kind that is made of points. */
export interface PointKind<M extends Stored> extends KindOf<M> {
  readonly box: null;
}

/** A kind that fills a turned box. */
export interface BoxKind<M extends Stored> extends KindOf<M> {
  box(mark: M): TurnedBox;
}

export type Kind<M extends Stored> = PointKind<M> | BoxKind<M>;
