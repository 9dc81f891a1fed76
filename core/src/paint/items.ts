import { contrast } from '../colour/contrast.js';
import type { Matrix } from '../geometry/matrix.js';
import type { Path, PathStep } from '../geometry/path.js';
import { mapPath, polylinePath } from '../geometry/path.js';
import type { Rect } from '../geometry/rect.js';
import type { LineStyle } from '../marks/lineStyle.js';
import type { Face } from '../text/font.js';
import type { TextLayout } from '../text/layout.js';

/** `multiply` is what makes a highlighter leave text readable (ISO 32000-1 §11.3.5.2, W3C Compositing §10.1). */
export type Blend = 'normal' | 'multiply';

/** What a renderer has to draw for a mark, in page units, in this order. */
export type PaintItem =
  | { kind: 'fill'; path: Path; colour: string; opacity: number; blend: Blend; rule: 'nonzero' | 'evenodd' }
  | { kind: 'line'; path: Path; colour: string; width: number; dash: readonly number[]; opacity: number }
  | {
      kind: 'text';
      /** Left end of the baseline. */
      x: number;
      y: number;
      text: string;
      width: number;
      face: Face;
      size: number;
      colour: string;
      /** The font lacks these characters: draw them with whatever has them, squeezed into `width`. */
      fallback: boolean;
      matrix: Matrix | undefined;
    }
  | {
      kind: 'picture';
      material: string;
      /** Where the shown part lies. */
      x: number;
      y: number;
      width: number;
      height: number;
      /** The shown part of the picture, each 0 to 1. */
      crop: Rect;
      opacity: number;
      matrix: Matrix | undefined;
    };

export type PaintOf<Kind extends PaintItem['kind']> = Extract<PaintItem, { kind: Kind }>;

/** Colours that go on a coloured ground. */
const LIGHT = '#ffffff';
const DARK = '#000000';

/** A path filled with one colour. */
export function solid(path: Path, colour: string): PaintOf<'fill'> {
  return { kind: 'fill', path, colour, opacity: 1, blend: 'normal', rule: 'nonzero' };
}

/** A closed outline by quadratic curves: x, y where it begins, then a control and an end of each. */
export function ringPath([x, y, ...curves]: readonly number[]): PathStep[] {
  const steps: PathStep[] = [['M', x!, y!]];
  for (let i = 0; i < curves.length; i += 4)
    steps.push(['Q', ...curves.slice(i, i + 4)] as unknown as PathStep);
  return [...steps, ['Z']];
}

/** The outline of an upright rectangle. */
export function rectanglePath({ x, y, width, height }: Rect): Path {
  return polylinePath([x, y, x + width, y, x + width, y + height, x, y + height], true);
}

/** A path as it lies after a map, where there is one. */
export function mapped(path: Path, matrix: Matrix | undefined): Path {
  return matrix ? mapPath(path, matrix) : path;
}

/** A line and, where it is closed, its filling. */
export function paintLines(path: Path, style: LineStyle, closed: boolean): PaintItem[] {
  const items: PaintItem[] = [];
  if (style.fill !== null && closed) items.push({ ...solid(path, style.fill), opacity: style.opacity });
  if (style.line !== null) {
    items.push({
      kind: 'line',
      path,
      colour: style.line,
      width: style.width,
      dash: dashOf(style),
      opacity: style.opacity,
    });
  }
  return items;
}

function dashOf({ dash, width }: LineStyle): readonly number[] {
  return { solid: [], dashed: [width * 3, width * 2.5], dotted: [0.01, width * 2] }[dash];
}

/** Laid-out words whose box has its corner at x, y. */
export function paintLayout(
  layout: TextLayout,
  x: number,
  y: number,
  colour: string,
  matrix: Matrix | undefined,
): PaintItem[] {
  return layout.lines.flatMap((line) =>
    line.runs.flatMap(({ look, ...run }): PaintItem[] => {
      const { face, size } = look;
      const own = look.colour ?? colour;
      const [left, baseline] = [x + run.x, y + line.baseline];
      const letters: PaintItem = {
        kind: 'text',
        ...run,
        x: left,
        y: baseline,
        face,
        size,
        colour: own,
        matrix,
      };
      if (!look.underline) return [letters];
      const under = baseline + size * 0.12;
      const path = mapped(polylinePath([left, under, left + run.width, under], false), matrix);
      return [letters, { kind: 'line', path, colour: own, width: size * 0.06, dash: [], opacity: 1 }];
    }),
  );
}

/** Black or white, whichever is read better on a colour. */
export function onGround(colour: string): string {
  return contrast(colour, LIGHT) >= contrast(colour, DARK) ? LIGHT : DARK;
}
