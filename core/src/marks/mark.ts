import type { Kind, Stored } from './kind.js';
import { KINDS } from './kinds.js';
import type { FixedField } from './shared.js';

type Table = typeof KINDS;
type MarkIn<K> = K extends Kind<infer M> ? M : never;

export type MarkKind = keyof Table;
export type MarkOf<K extends MarkKind> = MarkIn<Table[K]>;
export type Mark = { [K in MarkKind]: MarkOf<K> }[MarkKind];
/** A mark that fills a turned box. */
export type BoxMark = {
  [K in MarkKind]: Table[K] extends { box: null } ? never : MarkOf<K>;
}[MarkKind];

type AnyField<M> = M extends Stored ? Omit<M, FixedField | 'style'> : never;
type Merge<U> = (U extends unknown ? (value: U) => void : never) extends (value: infer I) => void ? I : never;
type AnyStyle<M> = M extends Stored ? M['style'] : never;

/** What may be changed of a mark after it was made; which fields, depends on its kind. */
export type MarkPatch = Partial<Omit<Merge<AnyField<Mark>>, 'points' | 'text' | 'rects'>> & {
  points?: readonly number[];
  text?: string;
  rects?: readonly number[];
  style?: Partial<Merge<AnyStyle<Mark>>>;
};

/** The part of the table that knows this mark. */
export function kindOf<M extends Mark>(mark: M): Kind<M> {
  // The table's type says which kind belongs to which mark, but not to the compiler for a union of them.
  return KINDS[mark.kind] as unknown as Kind<M>;
}

export function hasBox(mark: Mark): mark is BoxMark {
  return kindOf(mark).box !== null;
}
