import { contrast } from '../colour/contrast.js';
import type { Matrix } from '../geometry/matrix.js';
import { boxMatrix } from '../geometry/turnedBox.js';
import { outline } from '../ink/outline.js';
import { textureLines } from '../ink/texture.js';
import { quoteLineWidth, quoteRects } from '../marks/bounds.js';
import type { LineStyle, Mark, MarkOf } from '../marks/mark.js';
import { arrowHeads, pathCourse } from '../marks/pathGeometry.js';
import { shapePath } from '../marks/shapeGeometry.js';
import { STAMP_FACE, STAMP_PARTS, STAMP_SQUARE, stampFigures } from '../marks/stampGeometry.js';
import type { Face } from '../text/font.js';
import { noteLayout, textHeight, textLayout } from '../text/markText.js';
import type { TextLayout } from '../text/layout.js';
import type { Path } from './path.js';
import { mapPath, polylinePath } from './path.js';

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
      crop: MarkOf<'picture'>['crop'];
      opacity: number;
      matrix: Matrix | undefined;
    };

export type PaintOf<Kind extends PaintItem['kind']> = Extract<PaintItem, { kind: Kind }>;

/** Colours that go on a coloured ground. */
const LIGHT = '#ffffff';
const DARK = '#000000';
/** A patch that is smaller has no room for a seam. */
const LEAST_SEAMED = 16;

/** How a mark is drawn; canvas, PDF and pictures all draw exactly this. */
export function paintMark(mark: Mark): PaintItem[] {
  switch (mark.kind) {
    case 'stroke':
      return paintStroke(mark);
    case 'text':
      return paintText(mark);
    case 'shape':
      return paintLines(mapped(shapePath(mark), boxMatrix(mark)), mark.style, mark.form !== 'bracket');
    case 'path':
      return [...paintLines(pathCourse(mark), mark.style, mark.closed), ...paintHeads(mark)];
    case 'stamp':
      return paintStamp(mark);
    case 'note':
      return paintNote(mark);
    case 'picture': {
      const { material, x, y, width, height, crop, style } = mark;
      return [
        {
          kind: 'picture',
          material,
          x,
          y,
          width,
          height,
          crop,
          opacity: style.opacity,
          matrix: boxMatrix(mark),
        },
      ];
    }
    case 'quote':
      return paintQuote(mark);
    case 'patch':
      return paintPatch(mark);
    case 'fill':
      return [
        {
          ...solid(
            mark.rings.flatMap((ring) => polylinePath(ring, true)),
            mark.style.colour,
          ),
          opacity: mark.style.opacity,
          rule: 'evenodd',
        },
      ];
  }
}

function paintQuote(mark: MarkOf<'quote'>): PaintItem[] {
  const { colour, opacity } = mark.style;
  return quoteRects(mark).map((rect): PaintItem => {
    const { x, y, width, height } = rect;
    if (mark.look === 'highlight') {
      const path = polylinePath([x, y, x + width, y, x + width, y + height, x, y + height], true);
      return { ...solid(path, colour), opacity, blend: 'multiply' };
    }
    const path = polylinePath([x, y + height, x + width, y + height], false);
    return { kind: 'line', path, colour, width: quoteLineWidth(rect), dash: [], opacity: 1 };
  });
}

/** How ink is drawn while it is not a mark yet, or is one. */
export function paintStroke(ink: Pick<MarkOf<'stroke'>, 'points' | 'style'>, finished = true): PaintItem[] {
  const { nature, colour, opacity, width } = ink.style;
  if (nature === 'pencil' || nature === 'chalk') {
    return textureLines(ink.points, nature, width).map(({ path, dash, share }) => ({
      kind: 'line',
      path,
      colour,
      width: width * share,
      dash,
      opacity: opacity * (nature === 'pencil' ? 0.6 : 0.85),
    }));
  }
  const blend = nature === 'highlighter' ? 'multiply' : 'normal';
  return [{ ...solid(outline(ink, finished), colour), opacity, blend }];
}

function solid(path: Path, colour: string): PaintOf<'fill'> {
  return { kind: 'fill', path, colour, opacity: 1, blend: 'normal', rule: 'nonzero' };
}

function mapped(path: Path, matrix: Matrix | undefined): Path {
  return matrix ? mapPath(path, matrix) : path;
}

function paintLines(path: Path, style: LineStyle, closed: boolean): PaintItem[] {
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

function paintHeads(mark: MarkOf<'path'>): PaintItem[] {
  const { line, opacity } = mark.style;
  return line === null ? [] : arrowHeads(mark).map((path) => ({ ...solid(path, line), opacity }));
}

function paintText(mark: MarkOf<'text'>): PaintItem[] {
  const { background, colour } = mark.style;
  const box = { ...mark, height: textHeight(mark) };
  const matrix = boxMatrix(box);
  const items: PaintItem[] = [];
  if (background !== null) {
    items.push(solid(mapped(shapePath({ form: 'rectangle', sides: 4, ...box }), matrix), background));
  }
  items.push(...paintLayout(textLayout(mark), mark.x, mark.y, colour, matrix));
  return items;
}

function paintLayout(
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

function paintStamp(mark: MarkOf<'stamp'>): PaintItem[] {
  const { x, y, width, height, style, label } = mark;
  const scale: Matrix = [width / STAMP_SQUARE, 0, 0, height / STAMP_SQUARE, x, y];
  const matrix = boxMatrix(mark);
  const items = STAMP_PARTS[mark.stamp].map((part): PaintItem => {
    const path = mapped(mapPath(part.path, scale), matrix);
    if ('fill' in part) return solid(path, part.fill === 'light' ? onGround(style.colour) : style.colour);
    const colour = part.line === 'light' ? onGround(style.colour) : style.colour;
    return { kind: 'line', path, colour, width: (part.width * width) / STAMP_SQUARE, dash: [], opacity: 1 };
  });
  if (mark.stamp !== 'number') return items;
  const { size, width: wide } = stampFigures(mark);
  const figures: PaintItem = {
    kind: 'text',
    x: x + (width - wide) / 2,
    y: y + height / 2 + size * 0.36,
    text: label,
    width: wide,
    face: STAMP_FACE,
    size,
    colour: onGround(style.colour),
    fallback: false,
    matrix,
  };
  return [...items, figures];
}

/** Black or white, whichever is read better on a colour. */
function onGround(colour: string): string {
  return contrast(colour, LIGHT) >= contrast(colour, DARK) ? LIGHT : DARK;
}

function paintNote(mark: MarkOf<'note'>): PaintItem[] {
  const matrix = boxMatrix(mark);
  const paper = solid(mapped(shapePath({ ...mark, form: 'rectangle', sides: 4 }), matrix), mark.style.colour);
  const { layout, x, y } = noteLayout(mark);
  return [paper, ...paintLayout(layout, x, y, onGround(mark.style.colour), matrix)];
}

/** A plain cloth with a seam, so that it is not taken for part of the page. */
function paintPatch(mark: MarkOf<'patch'>): PaintItem[] {
  const matrix = boxMatrix({ ...mark, flip: false });
  const cloth = (inset: number) => {
    const [x, y] = [mark.x + inset, mark.y + inset];
    const [width, height] = [mark.width - 2 * inset, mark.height - 2 * inset];
    return mapped(shapePath({ form: 'rectangle', sides: 4, x, y, width, height }), matrix);
  };
  const plain = solid(cloth(0), mark.style.colour);
  if (Math.min(mark.width, mark.height) < LEAST_SEAMED) return [plain];
  const colour = onGround(mark.style.colour);
  return [plain, { kind: 'line', path: cloth(5), colour, width: 1.5, dash: [6, 5], opacity: 0.7 }];
}
