import type { RealFunction } from './functions.js';
import { crossingsOf, extremaOf, rootsOf } from './places.js';
import type { PlotRecipe, PlottedCurve } from './recipe.js';
import type { Statement } from './statement.js';

/** A place of a plot that is shown with its numbers. */
export interface MarkedPlace {
  x: number;
  y: number;
  colour: string;
  /** As TeX. */
  label: string;
}

interface Curve {
  look: PlottedCurve;
  statement: Statement;
  f: RealFunction | undefined;
}

/** Of a wave in a wide window there may be hundreds. */
const MOST = 40;
const CROSSING = '#33413d';
const DECIMALS = 2;

/** Where curves are 0, turn, cross each other and the y axis, as far as that is asked for and lies in the window. */
export function markedPlaces(
  curves: readonly Curve[],
  { shown, window, comma }: PlotRecipe,
  steps: number,
): MarkedPlace[] {
  const found: MarkedPlace[] = [];
  const near = (window.x.to - window.x.from) / steps / 4;
  const add = (x: number, y: number, colour: string) => {
    const isIn = x >= window.x.from && x <= window.x.to && y >= window.y.from && y <= window.y.to;
    const isThere = found.some((other) => Math.abs(other.x - x) < near && Math.abs(other.y - y) < near);
    if (isIn && !isThere && found.length < MOST) found.push({ x, y, colour, label: pairTex(x, y, comma) });
  };
  const functions = curves.flatMap(({ look, statement, f }) =>
    f && statement.relation === '=' ? [{ colour: look.colour, f }] : [],
  );
  functions.forEach(({ f, colour }, i) => {
    if (shown.includes('roots')) for (const x of rootsOf(f, window.x, steps)) add(x, 0, colour);
    if (shown.includes('extrema')) for (const { x, y } of extremaOf(f, window.x, steps)) add(x, y, colour);
    if (shown.includes('intercepts')) add(0, f(0), colour);
    if (shown.includes('crossings'))
      for (const other of functions.slice(i + 1))
        for (const { x, y } of crossingsOf(f, other.f, window.x, steps)) add(x, y, CROSSING);
  });
  return found;
}

/** Two numbers of a place as TeX, with two decimals where they have more. */
function pairTex(x: number, y: number, comma: boolean): string {
  const said = (value: number) => {
    const text = String(Number(value.toFixed(DECIMALS)) + 0);
    return comma ? text.replace('.', '{,}') : text;
  };
  return `(${said(x)}${comma ? '\\mid ' : ',\\,'}${said(y)})`;
}
