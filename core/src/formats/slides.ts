import pptxgenjs from 'pptxgenjs';
import { encodeToBase64 } from '@cantoo/pdf-lib';
import type { Path } from '../geometry/path.js';
import { flattenPath } from '../geometry/path.js';
import { polygonArea } from '../geometry/polygon.js';
import type { Rect } from '../geometry/rect.js';
import { boundsOfPoints } from '../geometry/turnedBox.js';
import type { HandoutOptions, HandoutPage, HandoutSources, PictureFile } from '../handout/sources.js';
import { outlineCorners } from '../ink/outline.js';
import { STRIDE } from '../ink/points.js';
import type { Mark, MarkOf } from '../marks/mark.js';
import { textHeight } from '../marks/text/textLayout.js';
import { fewerCurves } from '../paint/fewerCurves.js';
import type { PaintItem, PaintOf } from '../paint/items.js';
import { paintMark } from '../paint/paint.js';
import { paintSurface } from '../paint/paintSurface.js';
import { hasOriginal, loadFaces, picturesOn } from '../paint/shownOn.js';
import { extentOf } from './svgPage.js';
import { FAMILIES } from './svgMarks.js';

const UNITS_PER_INCH = 96;
const POINTS_PER_UNIT = 72 / UNITS_PER_INCH;
/** Largest side of a slide, inches (ECMA-376 part 1, §19.7.9: 51,206,400 EMU). */
const LARGEST = 56;
/** Farthest that a curve may lie from the one on the screen, page units. */
const TOLERANCE = 0.1;

// Its types say that the class is a field of what is imported, which it is only for older modules.
const Deck = pptxgenjs as unknown as typeof pptxgenjs.default;
type Slide = ReturnType<InstanceType<typeof Deck>['addSlide']>;
type ShapeOptions = NonNullable<Parameters<Slide['addShape']>[1]>;
/** ECMA-376 §20.1.9.8; its types do not know the name. */
const FREE_FORM = 'custGeom' as Parameters<Slide['addShape']>[0];
type Points = NonNullable<ShapeOptions['points']>;

/**
 * The pages as a presentation (ECMA-376): what is under the marks as the background, marks as objects that can be changed:
 * ink, shapes and lines as free-form shapes, typed text and notes as text, pictures as pictures. All slides are as large as the
 * first page; pages of other sizes are fitted in.
 */
export async function slidesFile(
  pages: readonly HandoutPage[],
  sources: HandoutSources,
  { title, onProgress }: HandoutOptions,
): Promise<Uint8Array> {
  const deck = new Deck();
  deck.title = title;
  deck.company = 'Doodla';
  for (const { marks } of pages) await loadFaces(marks);
  const first = pages[0] ? extentOf(pages[0]) : { x: 0, y: 0, width: 1280, height: 720 };
  const size = sizeOf(first);
  deck.defineLayout({ name: 'PAGE', ...size });
  deck.layout = 'PAGE';
  for (const [i, handed] of pages.entries()) {
    await new SlideWriter(deck.addSlide(), handed, sources, size).write();
    onProgress?.(i + 1, pages.length);
  }
  return (await deck.write({ outputType: 'uint8array', compression: true })) as Uint8Array;
}

/** Inches. */
function sizeOf({ width, height }: Rect): { width: number; height: number } {
  const scale = Math.min(1 / UNITS_PER_INCH, LARGEST / Math.max(width, height));
  return { width: width * scale, height: height * scale };
}

class SlideWriter {
  private readonly extent: Rect;
  /** Inches to a page unit, and where the page begins on the slide. */
  private readonly scale: number;
  private readonly left: number;
  private readonly top: number;
  private readonly pictures = new Map<string, string>();

  constructor(
    private readonly slide: Slide,
    private readonly handed: HandoutPage,
    private readonly sources: HandoutSources,
    size: { width: number; height: number },
  ) {
    this.extent = extentOf(handed);
    const { width, height } = this.extent;
    this.scale = Math.min(size.width / width, size.height / height);
    this.left = (size.width - width * this.scale) / 2;
    this.top = (size.height - height * this.scale) / 2;
  }

  async write(): Promise<void> {
    const { page, marks, alts = {}, notes } = this.handed;
    for (const material of picturesOn(this.handed)) {
      const file = await this.sources.picture(material);
      if (file) this.pictures.set(material, dataOf(file));
    }
    if (hasOriginal(this.handed)) {
      const data = dataOf(await this.sources.pagePicture(page, this.extent));
      this.slide.addImage({ data, ...this.place(this.extent), altText: page.title || 'Page' });
    }
    for (const item of paintSurface(page, this.extent)) this.item(item, 'Paper');
    for (const mark of marks) this.mark(mark, mark.alt ?? alts[mark.id] ?? mark.kind);
    if (notes) this.slide.addNotes(notes);
  }

  private mark(mark: Mark, name: string): void {
    if (mark.kind === 'stroke') this.stroke(mark, name);
    else if (mark.kind === 'text') this.text(mark, name);
    else if (mark.kind === 'note') this.note(mark, name);
    else for (const item of paintMark(mark)) this.item(item, name);
  }

  /** Ink as a line through its points, as wide as it is in the middle, so that its colour and width can be changed. */
  private stroke(mark: MarkOf<'stroke'>, name: string): void {
    const { points, style } = mark;
    const path: Path = Array.from({ length: points.length / STRIDE }, (_, i) => [
      i === 0 ? 'M' : 'L',
      points[STRIDE * i]!,
      points[STRIDE * i + 1]!,
    ]);
    // A dot is a line of no length, which is not drawn.
    const drawn: Path = path.length > 1 ? path : [...path, ['L', points[0]! + 0.5, points[1]!]];
    this.line(
      {
        kind: 'line',
        path: drawn,
        colour: style.colour,
        width: meanWidth(mark),
        dash: [],
        // Nothing here multiplies: a highlighter has to let through what it marks.
        opacity: style.nature === 'highlighter' ? Math.min(0.45, style.opacity) : style.opacity,
      },
      name,
    );
  }

  private text(mark: MarkOf<'text'>, name: string): void {
    const { x, y, width, rotation, style, text, parts = [] } = mark;
    const look = { size: style.size, bold: style.bold, italic: style.italic, underline: style.underline };
    const runs = pieces(text, parts).map(({ piece, part }) => {
      const own = { ...look, colour: style.colour, ...part };
      return {
        text: piece,
        options: {
          fontSize: this.points(style.size * (part?.scale ?? 1)),
          bold: own.bold,
          italic: own.italic,
          color: bare(own.colour),
          ...(own.underline && { underline: { style: 'sng' as const } }),
          ...(style.list !== 'none' && {
            bullet: style.list === 'numbers' ? { type: 'number' as const } : true,
          }),
        },
      };
    });
    this.slide.addText(runs, {
      ...this.place({ x, y, width, height: textHeight(mark) }),
      objectName: name,
      fontFace: FAMILIES[style.font],
      align: style.align,
      valign: 'top',
      margin: 0,
      rotate: turn(rotation),
      ...(style.background !== null && { fill: { color: bare(style.background) } }),
    });
  }

  private note(mark: MarkOf<'note'>, name: string): void {
    const words = paintMark(mark).find((item): item is PaintOf<'text'> => item.kind === 'text');
    this.slide.addText(mark.text, {
      ...this.place(mark),
      objectName: name,
      fontFace: FAMILIES[mark.style.font],
      fontSize: this.points(words?.size ?? 16),
      color: bare(words?.colour ?? '#000000'),
      fill: { color: bare(mark.style.colour) },
      align: 'center',
      valign: 'middle',
      margin: 2,
      rotate: turn(mark.rotation),
    });
  }

  private item(item: PaintItem, name: string): void {
    switch (item.kind) {
      case 'fill':
        return this.freeForm(item.path, name, {
          fill: { color: bare(item.colour), transparency: transparency(item.opacity) },
        });
      case 'line':
        return this.line(item, name);
      case 'text':
        return this.letters(item, name);
      case 'picture':
        return this.picture(item, name);
    }
  }

  private line({ path, colour, width, opacity, dash }: PaintOf<'line'>, name: string): void {
    this.freeForm(path, name, {
      line: {
        color: bare(colour),
        width: this.points(width),
        transparency: transparency(opacity),
        ...(dash.length > 0 && { dashType: dash[0]! < 1 ? ('sysDot' as const) : ('dash' as const) }),
      },
    });
  }

  private freeForm(path: Path, objectName: string, look: ShapeOptions): void {
    const flat = flattenPath(path, 8);
    if (flat.length === 0) return;
    const box = boundsOfPoints(flat);
    const x = (value: number) => (value - box.x) * this.scale;
    const y = (value: number) => (value - box.y) * this.scale;
    const points: Points = [];
    for (const step of fewerCurves(path, TOLERANCE)) {
      const [letter, ...n] = step as readonly [string, ...number[]];
      if (letter === 'Z') points.push({ close: true });
      else if (letter === 'C')
        points.push({
          x: x(n[4]!),
          y: y(n[5]!),
          curve: { type: 'cubic', x1: x(n[0]!), y1: y(n[1]!), x2: x(n[2]!), y2: y(n[3]!) },
        });
      else points.push({ x: x(n[0]!), y: y(n[1]!), moveTo: letter === 'M' });
    }
    this.slide.addShape(FREE_FORM, { ...this.place(box), objectName, points, ...look });
  }

  private letters({ x, y, text, width, size, colour, matrix, face }: PaintOf<'text'>, name: string): void {
    const angle = matrix ? (Math.atan2(matrix[1], matrix[0]) * 180) / Math.PI : 0;
    const box = { x, y: y - size, width: width + size, height: size * 1.4 };
    this.slide.addText(text, {
      ...this.place(box),
      objectName: name,
      fontFace: FAMILIES.andika,
      fontSize: this.points(size),
      color: bare(colour),
      bold: face.includes('bold'),
      margin: 0,
      valign: 'top',
      rotate: turn(angle),
    });
  }

  private picture({ material, crop, opacity, matrix, ...box }: PaintOf<'picture'>, altText: string): void {
    const data = this.pictures.get(material);
    if (data === undefined) return;
    const whole = { w: (box.width / crop.width) * this.scale, h: (box.height / crop.height) * this.scale };
    const { x, y, w, h } = this.place(box);
    // A mirrored picture turns the other way: ECMA-376 turns after it mirrors.
    const isMirrored = matrix !== undefined && matrix[0] * matrix[3] - matrix[1] * matrix[2] < 0;
    const angle = matrix ? (Math.atan2(matrix[2], matrix[3]) * -180) / Math.PI : 0;
    this.slide.addImage({
      data,
      x,
      y,
      ...whole,
      sizing: { type: 'crop', w, h, x: crop.x * whole.w, y: crop.y * whole.h },
      altText,
      flipH: isMirrored,
      rotate: turn(angle),
      transparency: transparency(opacity),
    });
  }

  private place({ x, y, width, height }: Rect) {
    const { scale, left, top, extent } = this;
    return {
      x: left + (x - extent.x) * scale,
      y: top + (y - extent.y) * scale,
      w: Math.max(0.001, width * scale),
      h: Math.max(0.001, height * scale),
    };
  }

  private points(units: number): number {
    return Math.round(units * POINTS_PER_UNIT * UNITS_PER_INCH * this.scale * 100) / 100;
  }
}

/** The text in pieces of one look each. */
function pieces<Part extends { from: number; to: number }>(
  text: string,
  parts: readonly Part[],
): { piece: string; part?: Part }[] {
  const all: { piece: string; part?: Part }[] = [];
  let at = 0;
  for (const part of parts) {
    if (part.from > at) all.push({ piece: text.slice(at, part.from) });
    const piece = text.slice(Math.max(at, part.from), part.to);
    if (piece !== '') all.push({ piece, part });
    at = Math.max(at, part.to);
  }
  if (at < text.length) all.push({ piece: text.slice(at) });
  return all;
}

/** The width of a line that takes as much ink as a stroke does. */
function meanWidth(mark: MarkOf<'stroke'>): number {
  const { points, style } = mark;
  let length = 0;
  for (let i = STRIDE; i < points.length; i += STRIDE)
    length += Math.hypot(points[i]! - points[i - STRIDE]!, points[i + 1]! - points[i + 1 - STRIDE]!);
  if (length < style.width) return style.width;
  const area = Math.abs(polygonArea(outlineCorners(mark) as [number, number][]));
  return Math.min(style.width, Math.max(style.width * 0.3, area / (length + style.width / 2)));
}

const bare = (colour: string) => colour.slice(1);
const transparency = (opacity: number) => Math.round((1 - opacity) * 100);
/** 0 up to 360, whole degrees as they are stored to a sixty-thousandth. */
const turn = (degrees: number) => ((degrees % 360) + 360) % 360;

function dataOf({ bytes, type }: PictureFile): string {
  return `image/${type};base64,${encodeToBase64(bytes)}`;
}
