import type { MarkOf } from '@doodla/core';
import { markBounds } from '@doodla/core';
import { recipeOf, recipeText } from '@doodla/core/plots';
import { useCallback, useEffect, useRef } from 'react';
import { changePlot, newPlot } from '../desk/plots';
import type { PageDesk } from '../room/pageDesk';
import { placeBeside } from './placeBeside';
import type { MadePlot } from './plotDrawing';
import type { TypedDraft } from '../typing/typedDraft';

/** A hand that has not moved, zoomed or pulled for so long rests, milliseconds. */
const REST_MS = 300;

/**
 * Puts a graph on the page, or in the place of `mark`; returns what does it, which says whether it is there. While one is changed
 * that is on the page, what a hand moves, zooms and pulls is seen there, and by the class, whenever it rests; what is typed of
 * curves and points waits until it is kept.
 */
export function useLivePlot(
  desk: PageDesk,
  { mark, formula }: { mark: MarkOf<'plot'> | undefined; formula: MarkOf<'formula'> | undefined },
  made: MadePlot | undefined,
  draft: TypedDraft,
): (made: MadePlot) => boolean {
  const onPage = useRef(mark?.recipe);
  const put = useCallback(
    (next: MadePlot) => {
      const text = recipeText(next.recipe);
      if (text === onPage.current) return true;
      const isThere = mark ? changePlot(desk, mark, next.recipe, next.drawing) : putNew(desk, formula, next);
      if (!isThere) return false;
      onPage.current = text;
      // What is on the page need not be kept beside it.
      draft.drop();
      return true;
    },
    [desk, mark, formula, draft],
  );
  useEffect(() => {
    if (!mark || !made || !saysTheSame(made, onPage.current ?? '')) return;
    const timer = setTimeout(() => put(made), REST_MS);
    return () => clearTimeout(timer);
  }, [mark, made, put]);
  return put;
}

function putNew(
  desk: PageDesk,
  formula: MarkOf<'formula'> | undefined,
  { recipe, drawing }: MadePlot,
): boolean {
  const plot = newPlot(desk, recipe, drawing);
  return plot !== undefined && placeBeside(desk, [plot], formula && markBounds(formula));
}

/** Whether a graph has the curves and points of a recipe. */
function saysTheSame({ recipe: { curves, points } }: MadePlot, before: string): boolean {
  const was = recipeOf(before);
  return JSON.stringify([was?.curves, was?.points]) === JSON.stringify([curves, points]);
}
