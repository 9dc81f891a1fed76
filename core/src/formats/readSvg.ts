import type { Matrix } from '../geometry/matrix.js';
import { applyMatrix, compose, IDENTITY } from '../geometry/matrix.js';
import type { Path, PathStep } from '../geometry/path.js';
import { flattenPath } from '../geometry/path.js';
import { MAX_POINTS } from '../ink/points.js';
import { MAX_COORDINATE } from '../marks/fields.js';
import { stepsOf } from './pathData.js';
import type { LineStyle } from '../marks/lineStyle.js';
import type { MarkBody } from '../marks/markBody.js';
import { MAX_TEXT_LENGTH, TEXT_SIZE } from '../marks/text/textMark.js';
import { textWidth } from '../text/layout.js';
import type { XmlNode } from './parseXml.js';
import { elementsNamed, textIn } from './parseXml.js';
import type { ReadMark } from './readMark.js';
import { UnreadableFile } from './readMark.js';
import { readXml } from './readXml.js';
import { lengthOf } from './svgLength.js';
import type { SvgLook } from './svgLook.js';
import { inherited, lookOf, PLAIN_LOOK } from './svgLook.js';
import { matrixOf } from './svgTransform.js';

/** Pieces that a curve is cut into where it becomes corners. */
const PIECES = 12;
const MAX_CORNERS = 2000;
/** Elements that show nothing where they stand (SVG 2 §5.3). */
const NOT_SHOWN = new Set([
  'defs',
  'symbol',
  'clipPath',
  'mask',
  'pattern',
  'marker',
  'linearGradient',
  'radialGradient',
  'filter',
  'style',
  'script',
  'title',
  'desc',
  'metadata',
]);

/** What was read of a drawing: its marks, lowest first, and how many elements could not become marks. */
export interface ReadDrawing {
  marks: ReadMark[];
  left: number;
}

/**
 * The shapes, lines and words of an SVG document (SVG 2) as marks that can be changed, fitted into `room` where it is larger.
 * Gradients, patterns, clips, filters and pictures are not taken over; how many elements that is, is said. Throws
 * UnreadableFile.
 */
export function readSvg(xml: string, room: { width: number; height: number }): ReadDrawing {
  const [svg] = elementsNamed('svg', readXml(xml));
  if (!svg) throw new UnreadableFile();
  const reader = new SvgReader(svg);
  reader.children(svg, fittedInto(svg, room), inherited(PLAIN_LOOK, svg, reader.classes));
  return { marks: reader.bodies.map((body) => ({ body })), left: reader.left };
}

/** From the drawing's own units to page units: as large as it says, made smaller where there is no room. */
function fittedInto(svg: XmlNode, room: { width: number; height: number }): Matrix {
  const box = (svg.attributes['viewBox'] ?? '').split(/[\s,]+/).map(Number);
  const own = { width: lengthOf(svg.attributes['width']), height: lengthOf(svg.attributes['height']) };
  const [x, y, width, height] =
    box.length === 4 && box.every(Number.isFinite) && box[2]! > 0 && box[3]! > 0
      ? (box as [number, number, number, number])
      : [0, 0, own.width ?? room.width, own.height ?? room.height];
  const shown = { width: own.width ?? width, height: own.height ?? height };
  const smaller = Math.min(1, room.width / shown.width, room.height / shown.height);
  const scale = Math.min(shown.width / width, shown.height / height) * smaller;
  const left = (room.width - width * scale) / 2;
  const top = (room.height - height * scale) / 2;
  return smaller < 1 || (width * scale < room.width && height * scale < room.height)
    ? [scale, 0, 0, scale, left - x * scale, top - y * scale]
    : [scale, 0, 0, scale, -x * scale, -y * scale];
}

class SvgReader {
  readonly bodies: MarkBody[] = [];
  left = 0;
  readonly classes: ReadonlyMap<string, string>;
  private readonly byId = new Map<string, XmlNode>();
  private depth = 0;

  constructor(svg: XmlNode) {
    this.note(svg);
    this.classes = rulesOf(
      elementsNamed('style', [svg])
        .map(({ children }) => textIn(children))
        .join('\n'),
    );
  }

  children(node: XmlNode, matrix: Matrix, look: SvgLook): void {
    for (const child of node.children) this.element(child, matrix, look);
  }

  private element(node: XmlNode, above: Matrix, outer: SvgLook): void {
    if (node.name === '' || NOT_SHOWN.has(node.name)) return;
    const look = inherited(outer, node, this.classes);
    if (!look.isShown) return;
    const matrix = compose(matrixOf(node.attributes['transform'] ?? ''), above);
    switch (node.name) {
      case 'g':
      case 'a':
      case 'switch':
        return this.children(node, matrix, look);
      case 'svg':
        return this.children(node, compose(movedBy(node), matrix), look);
      case 'use':
        return this.use(node, matrix, look);
      case 'text':
        return this.text(node, matrix, look);
      default:
        return this.shape(node, matrix, look);
    }
  }

  private use(node: XmlNode, matrix: Matrix, look: SvgLook): void {
    const reference = node.attributes['href'] ?? node.attributes['xlink:href'] ?? '';
    const used = this.byId.get(reference.replace(/^#/, ''));
    // Something that uses itself would never end.
    if (!used || this.depth > 8) return;
    this.depth += 1;
    const moved = compose(movedBy(node), matrix);
    if (used.name === 'symbol') this.children(used, moved, look);
    else this.element(used, moved, look);
    this.depth -= 1;
  }

  private shape(node: XmlNode, matrix: Matrix, look: SvgLook): void {
    const data = pathData(node);
    if (data === undefined) {
      this.left += 1;
      return;
    }
    const paths = subpaths(data, matrix);
    if (paths.length === 0) return;
    const scale = Math.sqrt(Math.abs(matrix[0] * matrix[3] - matrix[1] * matrix[2]));
    const style = lookOf(look, scale);
    if (style.line === null && style.fill === null) return;
    const canBeFilled = paths.length === 1 || style.fill === null;
    if (!canBeFilled) this.filling(paths, style);
    for (const { points, isClosed } of paths)
      this.line(points, isClosed, canBeFilled ? style : { ...style, fill: null });
  }

  /** Several outlines filled together, which may have holes. */
  private filling(paths: readonly Outline[], { fill, opacity }: LineStyle): void {
    const rings = paths
      .map(({ points }) => points.flat())
      .filter((ring) => ring.length >= 6)
      .slice(0, 2000)
      .map((ring) => ring.slice(0, 2 * MAX_POINTS));
    if (rings.length > 0) this.bodies.push({ kind: 'fill', rings, style: { colour: fill!, opacity } });
  }

  private line(points: readonly (readonly [number, number])[], isClosed: boolean, style: LineStyle): void {
    // What is filled is closed, whether its line is or not.
    const fills = style.fill !== null && points.length > 2;
    if (style.line === null && !fills) return;
    const step = Math.max(1, Math.ceil(points.length / MAX_CORNERS));
    const kept = points.filter((_, i) => i % step === 0 || i === points.length - 1).slice(0, MAX_CORNERS);
    if (kept.length < 2) return;
    this.bodies.push({
      kind: 'path',
      course: 'straight',
      points: kept.flat(),
      closed: isClosed || fills,
      heads: 'none',
      from: null,
      to: null,
      style,
    });
  }

  private text(node: XmlNode, matrix: Matrix, look: SvgLook): void {
    const lines = node.children.some(({ name }) => name === 'tspan')
      ? node.children.filter(({ name, text }) => name === 'tspan' || text.trim() !== '')
      : [node];
    for (const line of lines) {
      const text = (line.name === '' ? line.text : textIn(line.children)).replace(/\s+/g, ' ').trim();
      if (text === '') continue;
      const own = line.name === 'tspan' ? inherited(look, line, this.classes) : look;
      const at = [line, node].map(({ attributes }) => attributes);
      const first = (key: string) =>
        at.map((each) => lengthOf(each[key])).find((value) => value !== undefined) ?? 0;
      this.words(
        text.slice(0, MAX_TEXT_LENGTH),
        [first('x') + first('dx'), first('y') + first('dy')],
        matrix,
        own,
      );
    }
  }

  private words(text: string, [x, y]: readonly [number, number], matrix: Matrix, look: SvgLook): void {
    const scale = Math.hypot(matrix[0], matrix[1]);
    const size = within(TEXT_SIZE, look.fontSize * scale);
    const colour = look.fill ?? '#000000';
    const width = textWidth(text, 'andika', size) * 1.05 + 2;
    const [left, baseline] = applyMatrix(matrix, x, y);
    const shift = { start: 0, middle: width / 2, end: width }[look.anchor];
    const angle = Math.atan2(matrix[1], matrix[0]);
    // The box's middle, which it is turned about, from the start of its base line.
    const [dx, dy] = [width / 2 - shift, -size * 0.35];
    const middle = [
      left + dx * Math.cos(angle) - dy * Math.sin(angle),
      baseline + dx * Math.sin(angle) + dy * Math.cos(angle),
    ] as const;
    const height = size * 1.5;
    this.bodies.push({
      kind: 'text',
      x: limited(middle[0] - width / 2),
      y: limited(middle[1] - height / 2),
      width: limited(Math.max(1, width)),
      rotation: round((angle * 180) / Math.PI),
      text,
      style: {
        font: 'andika',
        size: round(size),
        colour,
        bold: look.isBold,
        italic: look.isItalic,
        underline: false,
        background: null,
        align: ({ start: 'left', middle: 'center', end: 'right' } as const)[look.anchor],
        list: 'none',
      },
    });
  }

  private note(node: XmlNode): void {
    const { id } = node.attributes;
    if (id !== undefined) this.byId.set(id, node);
    for (const child of node.children) this.note(child);
  }
}

interface Outline {
  points: readonly (readonly [number, number])[];
  isClosed: boolean;
}

/** The path data (SVG 2 §9.3) that draws a basic shape (§10); undefined for what is no shape. */
function pathData({ name, attributes }: XmlNode): string | undefined {
  const n = (key: string) => lengthOf(attributes[key]) ?? 0;
  switch (name) {
    case 'path':
      return attributes['d'] ?? '';
    case 'line':
      return `M${n('x1')} ${n('y1')}L${n('x2')} ${n('y2')}`;
    case 'polyline':
    case 'polygon': {
      const points = (attributes['points'] ?? '').trim();
      return points === '' ? '' : `M${points}${name === 'polygon' ? 'Z' : ''}`;
    }
    case 'circle':
    case 'ellipse': {
      const [rx, ry] = name === 'circle' ? [n('r'), n('r')] : [n('rx'), n('ry')];
      if (rx <= 0 || ry <= 0) return '';
      return `M${n('cx') - rx} ${n('cy')}a${rx} ${ry} 0 1 0 ${2 * rx} 0a${rx} ${ry} 0 1 0 ${-2 * rx} 0Z`;
    }
    case 'rect':
      return rectangle(n('x'), n('y'), n('width'), n('height'), cornerOf(attributes));
    default:
      return undefined;
  }
}

function cornerOf(attributes: Readonly<Record<string, string>>): readonly [number, number] {
  const [rx, ry] = [lengthOf(attributes['rx']), lengthOf(attributes['ry'])];
  return [rx ?? ry ?? 0, ry ?? rx ?? 0];
}

function rectangle(
  x: number,
  y: number,
  width: number,
  height: number,
  [cornerX, cornerY]: readonly [number, number],
): string {
  if (width <= 0 || height <= 0) return '';
  const [rx, ry] = [Math.min(cornerX, width / 2), Math.min(cornerY, height / 2)];
  if (rx <= 0 || ry <= 0) return `M${x} ${y}h${width}v${height}h${-width}Z`;
  const arc = (dx: number, dy: number) => `a${rx} ${ry} 0 0 1 ${dx} ${dy}`;
  const [across, down] = [width - 2 * rx, height - 2 * ry];
  return `M${x + rx} ${y}h${across}${arc(rx, ry)}v${down}${arc(-rx, ry)}h${-across}${arc(-rx, -ry)}v${-down}${arc(rx, -ry)}Z`;
}

/** The outlines of path data on the page, each as corners. */
function subpaths(data: string, matrix: Matrix): Outline[] {
  const outlines: Outline[] = [];
  let steps: PathStep[] = [];
  const finish = () => {
    const isClosed = steps.at(-1)?.[0] === 'Z';
    const points = flattenPath(steps as Path, PIECES).map(([x, y]) => [limited(x), limited(y)] as const);
    const own = isClosed ? points.slice(0, -1) : points;
    if (own.length > 1) outlines.push({ points: own, isClosed });
    steps = [];
  };
  for (const step of stepsOf(data, matrix)) {
    if (step[0] === 'M') finish();
    steps.push(step);
  }
  finish();
  return outlines;
}

/** Declarations of plain class rules, by class. */
function rulesOf(css: string): ReadonlyMap<string, string> {
  const rules = new Map<string, string>();
  for (const [, selectors, body] of css.matchAll(/([^{}]+)\{([^}]*)\}/g))
    for (const selector of selectors!.split(',')) {
      const name = /^\s*\.([\w-]+)\s*$/.exec(selector)?.[1];
      if (name !== undefined) rules.set(name, `${rules.get(name) ?? ''};${body!}`);
    }
  return rules;
}

function movedBy({ attributes }: XmlNode): Matrix {
  const [x, y] = [lengthOf(attributes['x']) ?? 0, lengthOf(attributes['y']) ?? 0];
  return x === 0 && y === 0 ? IDENTITY : [1, 0, 0, 1, x, y];
}

function within({ min, max }: { min: number; max: number }, value: number): number {
  return Math.min(max, Math.max(min, value));
}

function limited(value: number): number {
  return round(within({ min: -MAX_COORDINATE, max: MAX_COORDINATE }, value));
}

const round = (value: number) => Math.round(value * 100) / 100;
