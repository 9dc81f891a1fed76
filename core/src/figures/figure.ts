import type { Pen } from './pen.js';

export const SUBJECTS = [
  'chemistry',
  'physics',
  'mathematics',
  'languages',
  'geography',
  'music',
  'sports',
] as const;
export type Subject = (typeof SUBJECTS)[number];

/** What can be set of a figure, and what it is at first. */
export type Field =
  | { is: 'number'; from: number; to: number; step: number; at: number }
  | { is: 'choice'; of: readonly string[]; at: string }
  | { is: 'words'; most: number; at: string }
  | { is: 'flag'; at: boolean };
export type Fields = Readonly<Record<string, Field>>;
export type Value = number | string | boolean;
export type Values = Readonly<Record<string, Value>>;

/** A drawing of a subject, as large as it is at first, page units. */
export interface Figure {
  subject: Subject;
  width: number;
  height: number;
  fields: Fields;
  /** Draws it, once what it needs for that is fetched. */
  draw(pen: Pen, values: Values): void | Promise<void>;
}

type ValueOf<F> = F extends { is: 'number' }
  ? number
  : F extends { is: 'flag' }
    ? boolean
    : F extends { is: 'choice'; of: readonly (infer One)[] }
      ? One
      : string;

interface Definition<F extends Fields> extends Omit<Figure, 'fields' | 'draw'> {
  fields: F;
  draw(pen: Pen, values: { readonly [Key in keyof F]: ValueOf<F[Key]> }): void | Promise<void>;
}

/** A figure whose drawing knows what its fields hold. */
export const figure = <const F extends Fields>(definition: Definition<F>): Figure => definition;

export const number = (from: number, to: number, at: number, step = 1) =>
  ({ is: 'number', from, to, step, at }) as const;
export const choice = <const One extends string>(of: readonly One[], at: NoInfer<One> = of[0]!) =>
  ({ is: 'choice', of, at }) as const;
export const words = (at: string, most = 200) => ({ is: 'words', most, at }) as const;
export const flag = (at = false) => ({ is: 'flag', at }) as const;

/** Thrown where what was typed cannot be drawn; `text` is what stands there. */
export class FigureError extends Error {
  override name = 'FigureError';

  constructor(
    readonly fault: 'formula' | 'unbalanced' | 'notes' | 'events' | 'nothing' | 'structure' | 'places',
    readonly text = '',
    options?: ErrorOptions,
  ) {
    super(fault, options);
  }
}
