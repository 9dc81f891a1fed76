import type { Drawing } from '@doodla/core';
import type { PlotRecipe } from '@doodla/core/plots';
import { PLOT_SIZE, plotPen, plotProblem } from '../desk/plots';
import type { PlotForm } from './plotForm';
import { FormProblem, recipeIn } from './plotForm';

/** A graph with what it is made of. */
export interface MadePlot {
  recipe: PlotRecipe;
  drawing: Drawing;
}

/** Draws what a form says. Throws what `problemOf` says. */
export async function drawForm(form: PlotForm): Promise<MadePlot> {
  const recipe = recipeIn(form);
  return { recipe, drawing: await plotPen.draw(recipe, PLOT_SIZE.width, PLOT_SIZE.height) };
}

/** What keeps a graph or a table of values from being made, as a sentence that says what to do. */
export function problemOf(error: unknown): string {
  return error instanceof FormProblem ? error.message : plotProblem(error);
}
