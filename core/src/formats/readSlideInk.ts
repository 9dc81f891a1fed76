import { strFromU8, unzipSync } from 'fflate';
import type { Rect } from '../geometry/rect.js';
import { unionRect } from '../geometry/rect.js';
import { boundsOfFlat } from '../geometry/path.js';
import { STRIDE } from '../ink/points.js';
import type { XmlNode } from './parseXml.js';
import { elementsNamed, parseXml } from './parseXml.js';
import { readInkMl } from './readInkMl.js';
import type { ReadMark } from './readMark.js';
import { UnreadableFile } from './readMark.js';

/** More than this of text is not ink of a lesson, bytes. */
const MOST_UNPACKED = 200e6;
const WANTED =
  /^ppt\/(presentation\.xml|slides\/(slide\d+\.xml|_rels\/slide\d+\.xml\.rels)|ink\/[^/]+\.xml)$/;

/**
 * The ink that has been drawn on slides (.pptx: InkML parts that slides refer to, ECMA-376 with content parts), a list for each
 * slide, fitted to pages of the size of `room`. Throws UnreadableFile.
 */
export function readSlideInk(bytes: Uint8Array, room: { width: number; height: number }): ReadMark[][] {
  const parts = unpacked(bytes);
  const presentation = parts.get('ppt/presentation.xml');
  if (!presentation) throw new UnreadableFile();
  const [size] = elementsNamed('p:sldSz', presentation);
  const slide = { width: Number(size?.attributes['cx']), height: Number(size?.attributes['cy']) };
  if (!(slide.width > 0 && slide.height > 0)) throw new UnreadableFile();
  const scale = Math.min(room.width / slide.width, room.height / slide.height);
  const names = [...parts.keys()].filter((name) => /^ppt\/slides\/slide\d+\.xml$/.test(name));
  const numbers = names.map((name) => Number(/\d+/.exec(name)![0])).sort((a, b) => a - b);
  return numbers.map((number) => {
    const nodes = parts.get(`ppt/slides/slide${number}.xml`)!;
    const targets = targetsOf(parts.get(`ppt/slides/_rels/slide${number}.xml.rels`) ?? []);
    return elementsNamed('p:contentPart', nodes).flatMap((part) => {
      const ink = parts.get(targets.get(part.attributes['r:id'] ?? '') ?? '');
      const frame = frameOf(part, scale);
      if (!ink || !frame) return [];
      const marks = readInkMl(ink, room).flat();
      fitInto(marks, frame);
      return marks;
    });
  });
}

function unpacked(bytes: Uint8Array): Map<string, XmlNode[]> {
  let total = 0;
  try {
    const files = unzipSync(bytes, {
      filter: ({ name, originalSize }) => {
        if (!WANTED.test(name)) return false;
        total += originalSize;
        return total <= MOST_UNPACKED;
      },
    });
    return new Map(Object.entries(files).map(([name, file]) => [name, parseXml(strFromU8(file))]));
  } catch {
    // Whoever chose the file can only choose another one.
    throw new UnreadableFile();
  }
}

/** Where the relations of a slide lead, by their ids. */
function targetsOf(relations: readonly XmlNode[]): Map<string, string> {
  return new Map(
    elementsNamed('Relationship', relations).map(({ attributes }) => [
      attributes['Id'] ?? '',
      `ppt/${(attributes['Target'] ?? '').replace(/^(\.\.\/|\/ppt\/)/, '')}`,
    ]),
  );
}

/** Where a part lies on its page, page units. */
function frameOf(part: XmlNode, scale: number): Rect | undefined {
  const [offset] = elementsNamed('a:off', part.children);
  const [extent] = elementsNamed('a:ext', part.children);
  const numbers = [
    offset?.attributes['x'],
    offset?.attributes['y'],
    extent?.attributes['cx'],
    extent?.attributes['cy'],
  ].map((value) => Number(value) * scale);
  if (!numbers.every(Number.isFinite)) return undefined;
  const [x, y, width, height] = numbers as [number, number, number, number];
  return { x, y, width, height };
}

/** Ink fills its frame, lines and all. */
function fitInto(marks: readonly ReadMark[], frame: Rect): void {
  const strokes = marks.flatMap(({ body }) =>
    body.kind === 'stroke' ? [{ points: body.points as number[], half: body.style.width / 2 }] : [],
  );
  if (strokes.length === 0) return;
  const half = Math.max(...strokes.map((stroke) => stroke.half));
  const box = strokes.map(({ points }) => boundsOfFlat(points, STRIDE)).reduce(unionRect);
  const inner = { width: Math.max(0, frame.width - 2 * half), height: Math.max(0, frame.height - 2 * half) };
  const kx = box.width > 0 ? inner.width / box.width : 1;
  const ky = box.height > 0 ? inner.height / box.height : 1;
  for (const { points } of strokes)
    for (let i = 0; i < points.length; i += STRIDE) {
      points[i] = round(frame.x + half + (points[i]! - box.x) * kx);
      points[i + 1] = round(frame.y + half + (points[i + 1]! - box.y) * ky);
    }
}

const round = (value: number) => Math.round(value * 100) / 100;
