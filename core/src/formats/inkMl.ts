import { strToU8 } from 'fflate';
import type { HandoutOptions, HandoutPage } from '../handout/sources.js';
import { STRIDE } from '../ink/points.js';
import type { MarkOf } from '../marks/mark.js';
import type { InkStyle } from '../marks/stroke/strokeMark.js';
import { UNITS_PER_MM } from '../pages/page.js';
import { element, xmlText } from './xml.js';

type Stroke = MarkOf<'stroke'>;

/** Digits of a millimetre that are written: a tenth of a micrometre. */
const DIGITS = 4;

/**
 * The ink of pages as InkML (W3C Recommendation, 20 September 2011): places in millimetres from the upper left corner,
 * pressure from 0 to 1, times in milliseconds. A group of traces for each page, in it one for each who wrote.
 */
export function inkMlFile(
  pages: readonly HandoutPage[],
  { title, people = {} }: Pick<HandoutOptions, 'title' | 'people'>,
): Uint8Array {
  const strokes = pages.flatMap(({ marks }) => marks.filter((mark) => mark.kind === 'stroke'));
  const begin = Math.min(...strokes.map(({ createdAt }) => createdAt));
  const brushes = new Map<string, string>();
  for (const { style } of strokes) {
    const key = JSON.stringify(style);
    if (!brushes.has(key)) brushes.set(key, `brush${brushes.size + 1}`);
  }
  const definitions = [
    ...(strokes.length > 0 ? [element('timestamp', { 'xml:id': 'begin', time: begin })] : []),
    CONTEXT,
    ...[...brushes].map(([key, id]) => brush(id, JSON.parse(key) as InkStyle)),
  ];
  const groups = pages.map(({ page, marks }, i) => {
    const name = element('annotation', { type: 'page' }, xmlText(page.title || String(i + 1)));
    const byWriter = runsByWriter(marks.filter((mark) => mark.kind === 'stroke'));
    const traces = byWriter.map((run) => {
      const [first] = run as [Stroke];
      const writer = first.credit ?? people[first.author];
      const who = writer ? element('annotation', { type: 'writer' }, xmlText(writer)) : '';
      const ids = run.map((stroke) => trace(stroke, begin, brushes.get(JSON.stringify(stroke.style))!));
      return element('traceGroup', {}, who + ids.join(''));
    });
    return element('traceGroup', { 'xml:id': `page${i + 1}`, contextRef: '#page' }, name + traces.join('\n'));
  });
  const ink = element(
    'ink',
    { xmlns: 'http://www.w3.org/2003/InkML' },
    [
      element('annotation', { type: 'title' }, xmlText(title)),
      element('definitions', {}, definitions.join('')),
      ...groups,
    ].join('\n'),
  );
  return strToU8(`<?xml version="1.0" encoding="UTF-8"?>\n${ink}\n`);
}

const channel = (name: string, set: Record<string, string | number>) =>
  element('channel', { name, type: 'decimal', ...set });
const CONTEXT = element(
  'context',
  { 'xml:id': 'page', timestampRef: '#begin' },
  element(
    'inkSource',
    { 'xml:id': 'pen' },
    element(
      'traceFormat',
      {},
      [
        channel('X', { units: 'mm' }),
        channel('Y', { units: 'mm' }),
        channel('F', { min: 0, max: 1 }),
        channel('T', { units: 'ms' }),
      ].join(''),
    ),
  ),
);

/** A pen (§5): standard properties; what kind of pen it is, is an annotation, which others pass over. */
function brush(id: string, { nature, colour, width, opacity }: InkStyle): string {
  const property = (name: string, value: string | number, units?: string) =>
    element('brushProperty', { name, value, units });
  return element(
    'brush',
    { 'xml:id': id },
    [
      element('annotation', { type: 'pen' }, nature),
      property('width', millimetres(width), 'mm'),
      property('height', millimetres(width), 'mm'),
      property('color', colour),
      property('transparency', Math.round((1 - opacity) * 1000) / 1000),
      property('tip', 'ellipse'),
      property('rasterOp', nature === 'highlighter' ? 'maskPen' : 'copyPen'),
    ].join(''),
  );
}

function trace({ id, points, createdAt, pressure }: Stroke, begin: number, brushId: string): string {
  const written: string[] = [];
  for (let i = 0; i < points.length; i += STRIDE)
    written.push(
      `${millimetres(points[i]!)} ${millimetres(points[i + 1]!)} ${points[i + 2]!} ${points[i + 3]!}`,
    );
  const attributes = {
    'xml:id': `m${id}`,
    brushRef: `#${brushId}`,
    timeOffset: createdAt - begin,
    // Whether the pressure was felt, or stands for speed.
    'd:pressure': pressure ? undefined : 'speed',
    'xmlns:d': pressure ? undefined : 'urn:doodla',
  };
  return element('trace', attributes, written.join(', '));
}

/** Neighbours that one person wrote. */
function runsByWriter(strokes: readonly Stroke[]): Stroke[][] {
  const runs: Stroke[][] = [];
  for (const stroke of strokes) {
    const last = runs.at(-1);
    if (last && last[0]!.author === stroke.author && last[0]!.credit === stroke.credit) last.push(stroke);
    else runs.push([stroke]);
  }
  return runs;
}

function millimetres(units: number): number {
  const factor = 10 ** DIGITS;
  return Math.round((units / UNITS_PER_MM) * factor) / factor;
}
