import type { Drawing, MarkOf } from '@doodla/core';
import type { PlotRecipe } from '@doodla/core/plots';
import { NoGraphError, PlotPen, recipeText } from '@doodla/core/plots';
import { t } from '../words';
import type { Desk } from './desk';
import { formulaFonts, formulaProblem, inWords } from './formulas';

type Plot = MarkOf<'plot'>;
export type PlotDesk = Pick<Desk, 'newMark' | 'target'>;

/** A new graph is so large, page units; both axes count alike in its usual window. */
export const PLOT_SIZE = { width: 480, height: 360 };
export const USUAL_WINDOW = { x: { from: -6, to: 6 }, y: { from: -4.5, to: 4.5 } };
const MAX_ALT = 1000;

export const plotPen = new PlotPen(formulaFonts);

/** What is seen and known of a graph or chart. */
type Look = Pick<Plot, 'alt' | 'drawing' | 'recipe'>;

/** A new graph with its corner at 0, 0. */
export function newPlot(desk: PlotDesk, recipe: PlotRecipe, drawing: Drawing): Plot | undefined {
  return newBox(desk, madeOf(recipe, drawing));
}

/** Changes what a graph shows; it stays where it is. Returns whether it was taken. */
export function changePlot(desk: PlotDesk, mark: Plot, recipe: PlotRecipe, drawing: Drawing): boolean {
  return changeBox(desk, mark, madeOf(recipe, drawing));
}

/** A new mark of a look with its corner at 0, 0. */
export function newBox(desk: PlotDesk, look: Look): Plot | undefined {
  const common = desk.newMark();
  if (!common) return undefined;
  const box = { x: 0, y: 0, ...PLOT_SIZE, rotation: 0 };
  return { ...common, kind: 'plot', ...box, ...look, style: { opacity: 1 } };
}

/** Gives a mark another look where it is. Returns whether it was taken. */
export function changeBox(desk: PlotDesk, { id }: Plot, look: Look): boolean {
  return desk.target.perform([{ do: 'patch', mark: id, set: look }]) !== undefined;
}

function madeOf(recipe: PlotRecipe, drawing: Drawing) {
  return { recipe: recipeText(recipe), drawing, alt: altOf(recipe) };
}

/** A graph in words: what its curves say. */
function altOf({ curves }: PlotRecipe): string {
  const what = curves.map(({ tex }) => inWords(tex)).join('; ');
  return (what === '' ? t('plots.graph') : t('plots.graphOf', { what })).slice(0, MAX_ALT);
}

/** What keeps a curve from being drawn, as a sentence that says what to do. */
export function plotProblem(error: unknown): string {
  if (!(error instanceof NoGraphError)) return formulaProblem(error);
  return { form: t('plots.form'), twoRelations: t('plots.twoRelations') }[error.fault];
}
