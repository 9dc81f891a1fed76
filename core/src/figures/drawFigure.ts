import { measureBy, outlinesOf } from '../charts/outlines.js';
import { Recorder } from '../charts/recorder.js';
import type { FormulaFonts } from '../formulas/fonts.js';
import type { Drawing } from '../marks/plot/plotMark.js';
import type { Field, Value, Values } from './figure.js';
import type { FigureId } from './figures.js';
import { FIGURES } from './figures.js';
import { Pen } from './pen.js';

/** What a figure is made of. */
export interface FigureRecipe {
  figure: FigureId;
  values: Values;
}

/** What a figure was made of, from its mark; undefined where that is none. What it does not say is as at first. */
export function figureOf(text: string): FigureRecipe | undefined {
  try {
    const { figure, values } = JSON.parse(text) as { figure: string; values: Record<string, unknown> };
    if (!Object.hasOwn(FIGURES, figure)) return undefined;
    const { fields } = FIGURES[figure as FigureId];
    const known = Object.entries(fields).map(([key, field]) => [key, valueIn(field, values[key])]);
    return { figure: figure as FigureId, values: Object.fromEntries(known) as Values };
  } catch {
    // No JSON, or without values, is no recipe.
    return undefined;
  }
}

/** Whether a plot's recipe is one of a figure. */
export const isFigureRecipe = (text: string): boolean => text.startsWith('{"figure":');

export const figureText = ({ figure, values }: FigureRecipe): string => JSON.stringify({ figure, values });

/** What a figure is at first. */
export function newFigure(figure: FigureId): FigureRecipe {
  const values = Object.entries(FIGURES[figure].fields).map(([key, { at }]) => [key, at]);
  return { figure, values: Object.fromEntries(values) as Values };
}

/** A value that a field can have: the one given, the nearest, or what it is at first. */
export function valueIn(field: Field, value: unknown): Value {
  switch (field.is) {
    case 'number':
      return typeof value === 'number' && Number.isFinite(value)
        ? Math.min(field.to, Math.max(field.from, value))
        : field.at;
    case 'choice':
      return field.of.includes(value as string) ? (value as string) : field.at;
    case 'words':
      return typeof value === 'string' ? value.slice(0, field.most) : field.at;
    case 'flag':
      return typeof value === 'boolean' ? value : field.at;
  }
}

/**
 * A figure as lines and outlines, in a box of its own size in page units. Throws a `FigureError` where what was typed cannot be
 * drawn, a `FormulaError` where a sign is in no font, and what the source of fonts throws.
 */
export async function drawFigure({ figure, values }: FigureRecipe, fonts: FormulaFonts): Promise<Drawing> {
  const { width, height, draw } = FIGURES[figure];
  const recorder = new Recorder(width, height, await measureBy(fonts));
  await draw(new Pen(recorder, width, height), values);
  return { width, height, parts: [...recorder.parts, ...(await outlinesOf(recorder.texts, fonts))] };
}
