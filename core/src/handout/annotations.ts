import type { PDFObject, PDFPage } from '@cantoo/pdf-lib';
import { PDFArray, PDFDict, PDFName, PDFNumber, PDFRef, PDFStream } from '@cantoo/pdf-lib';
import type { Matrix } from '../geometry/matrix.js';
import { applyMatrix, compose } from '../geometry/matrix.js';
import type { Rect } from '../geometry/rect.js';
import { ContentWriter } from './contentWriter.js';

const name = (text: string) => PDFName.of(text);
/** What a reader acts on stays; what it only shows becomes part of the page. */
const STAYS = new Set(
  ['Link', 'Widget', 'Popup', 'FileAttachment', 'Screen', 'Movie', 'RichMedia', '3D'].map(name),
);
/** Flags of an annotation that is not shown (ISO 32000-1 table 165): hidden, no view. */
const UNSEEN = 2 | 32;
const IDENTITY: Matrix = [1, 0, 0, 1, 0, 0];

/** Whether an annotation only shows something. */
export function isShownOnly(annotation: PDFDict): boolean {
  return !STAYS.has(annotation.lookup(name('Subtype')) as PDFName);
}

/**
 * Makes annotations that a page shows part of it: those that `takes` wants. Readers draw annotations over the page, and
 * so over what is written on them here. Returns what has been taken.
 */
export function flattenAnnotations(page: PDFPage, takes: (annotation: PDFDict) => boolean): PDFObject[] {
  const annotations = page.node.Annots();
  if (!annotations) return [];
  const writer = new ContentWriter();
  const taken: PDFObject[] = [];
  for (let i = 0; i < annotations.size();) {
    const annotation = annotations.lookup(i);
    const appearance =
      annotation instanceof PDFDict && takes(annotation) ? appearanceOf(annotation) : undefined;
    if (!appearance) {
      i += 1;
      continue;
    }
    writer.save();
    writer.transform(appearance.matrix);
    writer.write('Do', String(page.node.newXObject('Shown', appearance.stream)));
    writer.restore();
    taken.push(annotations.get(i));
    annotations.remove(i);
  }
  if (taken.length === 0) return [];
  const { context } = page.doc;
  page.node.addContentStream(context.register(context.stream(writer.finish(), { Filter: 'FlateDecode' })));
  return taken;
}

/** Where an annotation lies in its page's own space; undefined where that is not said. */
export function rectOf(annotation: PDFDict): Rect | undefined {
  const corners = numbers(annotation.lookup(name('Rect')), 4);
  if (!corners) return undefined;
  const [x0, y0, x1, y1] = sorted(corners) as [number, number, number, number];
  return { x: x0, y: y0, width: x1 - x0, height: y1 - y0 };
}

interface Appearance {
  stream: PDFRef;
  matrix: Matrix;
}

/** How an annotation looks, if it is shown. */
function appearanceOf(annotation: PDFDict): Appearance | undefined {
  const flags = annotation.lookup(name('F'));
  if (flags instanceof PDFNumber && (flags.asNumber() & UNSEEN) !== 0) return undefined;
  const looks = annotation.lookup(name('AP'));
  if (!(looks instanceof PDFDict)) return undefined;
  const stream = normal(looks, annotation.lookup(name('AS')));
  const dict = stream && annotation.context.lookup(stream);
  const rect = numbers(annotation.lookup(name('Rect')), 4);
  if (!stream || !(dict instanceof PDFStream) || !rect) return undefined;
  // Not always said where nothing else could be meant.
  dict.dict.set(name('Subtype'), name('Form'));
  const box = numbers(dict.dict.lookup(name('BBox')), 4);
  const own = (numbers(dict.dict.lookup(name('Matrix')), 6) ?? IDENTITY) as unknown as Matrix;
  const matrix = box && onto(mappedBox(box, own), sorted(rect));
  return matrix && { stream, matrix };
}

/** The normal appearance, of the state that the annotation is in (§12.5.5). */
function normal(looks: PDFDict, state: unknown): PDFRef | undefined {
  const look = looks.get(name('N'));
  if (!(looks.lookup(name('N')) instanceof PDFDict)) return look instanceof PDFRef ? look : undefined;
  const states = looks.lookup(name('N'), PDFDict);
  const chosen = state instanceof PDFName ? states.get(state) : undefined;
  return chosen instanceof PDFRef ? chosen : undefined;
}

/** The matrix that fits one box onto another (§12.5.5, algorithm 8.1); undefined where there is nothing to fit. */
function onto(from: readonly number[], to: readonly number[]): Matrix | undefined {
  const [width, height] = [from[2]! - from[0]!, from[3]! - from[1]!];
  if (width <= 0 || height <= 0) return undefined;
  const [x, y] = [(to[2]! - to[0]!) / width, (to[3]! - to[1]!) / height];
  return compose([1, 0, 0, 1, -from[0]!, -from[1]!], [x, 0, 0, y, to[0]!, to[1]!]);
}

/** The upright box round a box that was mapped. */
function mappedBox([x0, y0, x1, y1]: readonly number[], matrix: Matrix): number[] {
  const corners = [
    [x0, y0],
    [x1, y0],
    [x1, y1],
    [x0, y1],
  ].map(([x, y]) => applyMatrix(matrix, x!, y!));
  const [xs, ys] = [corners.map(([x]) => x), corners.map(([, y]) => y)];
  return [Math.min(...xs), Math.min(...ys), Math.max(...xs), Math.max(...ys)];
}

function sorted([x0, y0, x1, y1]: readonly number[]): number[] {
  return [Math.min(x0!, x1!), Math.min(y0!, y1!), Math.max(x0!, x1!), Math.max(y0!, y1!)];
}

function numbers(array: unknown, count: number): number[] | undefined {
  if (!(array instanceof PDFArray) || array.size() !== count) return undefined;
  const values = array.asArray().map((_, i) => array.lookup(i));
  return values.every((value) => value instanceof PDFNumber)
    ? values.map((value) => value.asNumber())
    : undefined;
}
