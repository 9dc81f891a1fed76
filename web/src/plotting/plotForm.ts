import type { PlotRecipe } from '@doodla/core/plots';
import { freeLetters, MOST_TABLE_POINTS, recipeOf, statementOf } from '@doodla/core/plots';
import { USUAL_WINDOW } from '../desk/plots';
import { language, t } from '../words';

/** What is chosen and typed for a graph, as it stands in the form. */
export interface PlotForm extends Omit<PlotRecipe, 'points'> {
  /** As they are typed, one a line. */
  points: string;
}

/** Colours of curves in their order: apart for colour-blind viewers, and dark enough on paper. */
export const CURVE_COLOURS = [
  { name: 'blue', hex: '#0072b2' },
  { name: 'vermilion', hex: '#c14f00' },
  { name: 'green', hex: '#007a5e' },
  { name: 'purple', hex: '#9b4f80' },
  { name: 'black', hex: '#000000' },
] as const;
const FIRST_LETTER = 1;

/** A sentence that says what to do about what was typed. */
export class FormProblem extends Error {}

export function newForm(tex = ''): PlotForm {
  return {
    curves: [newCurve([], tex)],
    points: '',
    window: USUAL_WINDOW,
    letters: {},
    shown: [],
    inPi: false,
    comma: language() === 'de' || /\d(\{,\}|,)\d/.test(tex),
  };
}

/** A curve in a look that none of the others has yet. */
export function newCurve(others: PlotRecipe['curves'], tex = ''): PlotRecipe['curves'][number] {
  const free = CURVE_COLOURS.find(({ hex }) => others.every(({ colour }) => colour !== hex));
  const dashes = ['solid', 'dashed', 'dotted'] as const;
  return { tex, colour: (free ?? CURVE_COLOURS[0]).hex, dash: dashes[others.length % dashes.length]! };
}

/** The form of a graph that is there; undefined where nobody knows what it was made of. */
export function formOf(recipe: string): PlotForm | undefined {
  const read = recipeOf(recipe);
  if (!read) return undefined;
  const said = (value: number) => (read.comma ? String(value).replace('.', ',') : String(value));
  const lines = [];
  for (let i = 0; i < read.points.length; i += 2)
    lines.push(`${said(read.points[i]!)}; ${said(read.points[i + 1]!)}`);
  return { ...read, points: lines.join('\n') };
}

/** A form as it was kept while it was typed; undefined where it is none. */
export function keptForm(text: string | undefined): PlotForm | undefined {
  try {
    const form = JSON.parse(text ?? '') as PlotForm;
    const typed = form.curves.filter(({ tex }) => tex !== '');
    const isForm =
      typeof form.points === 'string' && recipeOf(JSON.stringify({ ...form, points: [], curves: typed }));
    return isForm ? form : undefined;
  } catch {
    // Nothing was kept, or by another version.
    return undefined;
  }
}

/** What a form says; curves in which nothing is typed are left out. Throws a `FormProblem`. */
export function recipeIn(form: PlotForm): PlotRecipe {
  const curves = form.curves.filter(({ tex }) => tex.trim() !== '');
  const points = pointsIn(form.points);
  if (curves.length === 0 && points.length === 0) throw new FormProblem(t('plots.nothing'));
  const { x, y } = form.window;
  if (!(x.to > x.from) || !(y.to > y.from)) throw new FormProblem(t('plots.range'));
  return { ...form, curves, points };
}

/** Pairs of numbers, one a line, as they are typed or pasted from a table. Throws a `FormProblem`. */
export function pointsIn(text: string): number[] {
  const lines = text.split('\n').map((line) => line.trim().replace(/^\(|\)$/g, ''));
  const points = lines.flatMap((line, i) => {
    if (line === '') return [];
    const numbers = line.split(/[;\t]|\s+|,\s+/).filter((part) => part !== '');
    const pair = (numbers.length === 2 ? numbers : line.split(',')).map(numberIn);
    if (pair.length !== 2 || pair.some((value) => value === undefined))
      throw new FormProblem(t('plots.pointsUnread', { line: i + 1 }));
    return pair as number[];
  });
  if (points.length > 2 * MOST_TABLE_POINTS)
    throw new FormProblem(t('plots.tooManyPoints', { most: MOST_TABLE_POINTS }));
  return points;
}

/** A number with a point or a comma; undefined where it is none. */
export function numberIn(text: string): number | undefined {
  const plain = text.trim().replace('−', '-').replace(',', '.');
  const value = Number(plain);
  return plain === '' || !Number.isFinite(value) ? undefined : value;
}

/** Values of all letters of the curves: those there are, and 1 for those that are new. */
export function lettersFor({ curves, letters }: Pick<PlotForm, 'curves' | 'letters'>): PlotForm['letters'] {
  const all = new Set(curves.flatMap(({ tex }) => lettersOf(tex)));
  return Object.fromEntries([...all].sort().map((name) => [name, letters[name] ?? FIRST_LETTER]));
}

function lettersOf(tex: string): string[] {
  try {
    return tex.trim() === '' ? [] : freeLetters(statementOf(tex));
  } catch {
    // Half typed: what is wrong is said by the graph.
    return [];
  }
}
