import type { Drawing, MarkOf } from '@doodla/core';
import type { FigureRecipe } from '@doodla/core/figures';
import { drawFigure, FigureError, figureText } from '@doodla/core/figures';
import { t } from '../words';
import { sayFigure, sayField, sayOption } from '../words/figures';
import { formulaFonts, formulaProblem } from './formulas';
import type { PlotDesk } from './plots';
import { newBox } from './plots';

type Plot = MarkOf<'plot'>;

/** A figure with what it is made of. */
export interface MadeFigure {
  recipe: FigureRecipe;
  drawing: Drawing;
}

const MAX_ALT = 1000;

/** Draws a figure. Throws what `figureProblem` says. */
export async function figureIn(recipe: FigureRecipe): Promise<MadeFigure> {
  return { recipe, drawing: await drawFigure(recipe, formulaFonts) };
}

/** What a mark shows of a figure, and says of it in words. */
export function figureLook({ recipe, drawing }: MadeFigure): Pick<Plot, 'recipe' | 'drawing' | 'alt'> {
  return { recipe: figureText(recipe), drawing, alt: inWords(recipe) };
}

/** A new figure as large as it is drawn, with its corner at 0, 0. */
export function newFigureMark(desk: PlotDesk, made: MadeFigure): Plot | undefined {
  const { width, height } = made.drawing;
  const mark = newBox(desk, figureLook(made));
  return mark && { ...mark, width, height };
}

/** A figure in words: what it is, and all that is set of it. */
function inWords({ figure, values }: FigureRecipe): string {
  const set = Object.entries(values).flatMap(([key, value]) =>
    typeof value === 'boolean'
      ? []
      : `${sayField(key)} ${typeof value === 'string' ? sayOption(value) : value}`,
  );
  return [sayFigure(figure), ...set].join(', ').slice(0, MAX_ALT);
}

/** What keeps a figure from being drawn, as a sentence that says what to do. */
export function figureProblem(error: unknown): string {
  if (!(error instanceof FigureError)) return formulaProblem(error);
  const { fault, text } = error;
  return {
    formula: t('figures.badFormula', { text }),
    unbalanced: t('figures.unbalanced', { text }),
    notes: t('figures.badNote', { text }),
    events: t('figures.badEvent', { text }),
    nothing: t('figures.nothing'),
    structure: t('figures.badStructure', { text }),
    places: t('figures.badPlace', { text }),
  }[fault];
}
