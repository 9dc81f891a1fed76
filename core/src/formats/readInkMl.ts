import { isHexColour } from '../colour/contrast.js';
import { boundsOfFlat } from '../geometry/path.js';
import { unionRect } from '../geometry/rect.js';
import { MAX_POINTS, STRIDE } from '../ink/points.js';
import { INK_WIDTH } from '../marks/fields.js';
import type { InkStyle, Nature } from '../marks/stroke/strokeMark.js';
import { NATURES } from '../marks/stroke/strokeMark.js';
import { UNITS_PER_MM } from '../pages/page.js';
import type { XmlNode } from './parseXml.js';
import { elementsNamed, textIn } from './parseXml.js';
import type { ReadMark } from './readMark.js';
import { UnreadableFile } from './readMark.js';
import { readXml } from './readXml.js';
import type { Channel } from './tracePoints.js';
import { tracePoints } from './tracePoints.js';

const CHANNELS: readonly Channel[] = ['X', 'Y'].map((name) => ({
  name,
  scale: undefined,
  min: 0,
  max: undefined,
}));
/** Millimetres to units of length (InkML §3.1.2). */
const MM: Readonly<Record<string, number>> = {
  mm: 1,
  cm: 10,
  m: 1000,
  in: 25.4,
  inch: 25.4,
  pt: 25.4 / 72,
  pc: 25.4 / 6,
  himetric: 0.01,
};
const MS: Readonly<Record<string, number>> = { ms: 1, s: 1000 };
const PLAIN: InkStyle = { nature: 'pen', colour: '#000000', width: 3, opacity: 1 };

/**
 * The ink in an InkML document (W3C Recommendation, 2011), a list for each page: groups that say which they are, else all on
 * one. Places are page units where the ink says its units; where it does not, it is fitted into `room`. Throws UnreadableFile.
 */
export function readInkMl(
  xml: string | readonly XmlNode[],
  room: { width: number; height: number },
): ReadMark[][] {
  const [ink] = elementsNamed('ink', plainNames(typeof xml === 'string' ? readXml(xml) : xml));
  if (!ink) throw new UnreadableFile();
  const reader = new InkReader(ink);
  const pages = ink.children.filter((node) => node.name === 'traceGroup' && noteOf(node, 'page') !== '');
  const lists = pages.length > 0 ? pages.map((page) => reader.strokesIn(page)) : [reader.strokesIn(ink)];
  if (!reader.isMeasured) fitted(lists.flat(), room);
  return lists;
}

/** Names without the prefix of their namespace, which everybody chooses. */
function plainNames(nodes: readonly XmlNode[]): XmlNode[] {
  return nodes.map((node) => ({
    ...node,
    name: node.name.replace(/^\w+:/, ''),
    children: plainNames(node.children),
  }));
}

/** What a group, brush or trace is told to be, and what follows for those in it. */
interface Given {
  channels: readonly Channel[];
  style: InkStyle;
  writer: string;
  begin: number | undefined;
}

class InkReader {
  isMeasured = false;
  private readonly byId = new Map<string, XmlNode>();

  constructor(private readonly ink: XmlNode) {
    this.note(ink);
  }

  strokesIn(group: XmlNode): ReadMark[] {
    const first = elementsNamed('traceFormat', [this.ink])[0];
    const begin = elementsNamed('timestamp', [this.ink])[0];
    const given: Given = {
      channels: first ? this.channelsOf(first) : CHANNELS,
      style: PLAIN,
      writer: '',
      begin: begin && numberOf(begin.attributes['time']),
    };
    return this.read(group, given);
  }

  private read(node: XmlNode, above: Given): ReadMark[] {
    const given = this.givenBy(node, above);
    return node.children.flatMap((child) => {
      if (child.name === 'trace') return this.stroke(child, this.givenBy(child, given));
      return child.name === 'traceGroup' ? this.read(child, given) : [];
    });
  }

  private givenBy(node: XmlNode, above: Given): Given {
    const context = this.referred(node, 'contextRef');
    const brush = this.referred(node, 'brushRef') ?? (context && this.referred(context, 'brushRef'));
    const format =
      context &&
      (elementsNamed('traceFormat', [context])[0] ??
        this.referred(context, 'traceFormatRef') ??
        elementsNamed('traceFormat', [this.referred(context, 'inkSourceRef') ?? NOTHING])[0]);
    const writer = noteOf(node, 'writer');
    return {
      channels: format ? this.channelsOf(format) : above.channels,
      style: brush ? styleOf(brush) : above.style,
      writer: writer === '' ? above.writer : writer,
      begin: above.begin,
    };
  }

  private stroke(trace: XmlNode, { channels, style, writer, begin }: Given): ReadMark[] {
    const points = tracePoints(textIn(trace.children), channels).slice(0, MAX_POINTS * STRIDE);
    if (points.length === 0) return [];
    if (channels.some(({ name, scale }) => name === 'X' && scale !== undefined)) this.isMeasured = true;
    const at = begin === undefined ? undefined : begin + numberOf(trace.attributes['timeOffset']);
    const pressure = channels.some(({ name }) => name === 'F') && trace.attributes['d:pressure'] !== 'speed';
    return [
      {
        body: { kind: 'stroke', points, pressure, style },
        ...(writer !== '' && { credit: writer.slice(0, 120) }),
        ...(at !== undefined && at > 0 && { createdAt: at }),
      },
    ];
  }

  private channelsOf(format: XmlNode): Channel[] {
    const resolutions = elementsNamed('channelProperty', [this.ink]).filter(
      ({ attributes }) => attributes['name'] === 'resolution',
    );
    return elementsNamed('channel', [format]).map(({ attributes }) => {
      const name = attributes['name'] ?? '';
      const resolution = resolutions.find(({ attributes: own }) => own['channel'] === name);
      return {
        name,
        scale: scaleOf(name, attributes['units'], resolution),
        min: numberOf(attributes['min']),
        max: attributes['max'] === undefined ? undefined : numberOf(attributes['max']),
      };
    });
  }

  private referred(node: XmlNode, attribute: string): XmlNode | undefined {
    const reference = node.attributes[attribute];
    return reference === undefined ? undefined : this.byId.get(reference.replace(/^#/, ''));
  }

  private note(node: XmlNode): void {
    const id = node.attributes['xml:id'] ?? node.attributes['id'];
    if (id !== undefined) this.byId.set(id, node);
    for (const child of node.children) this.note(child);
  }
}

const NOTHING: XmlNode = { name: '', attributes: {}, children: [], text: '' };

/** What an annotation of a type says of an element; empty where nothing does. */
function noteOf(node: XmlNode, type: string): string {
  const note = node.children.find(
    (child) => child.name === 'annotation' && child.attributes['type'] === type,
  );
  return note ? textIn(note.children).trim() : '';
}

/** Page units to a unit of length, ms to one of time; by the resolution of the device where the unit is its own. */
function scaleOf(name: string, units: string | undefined, resolution: XmlNode | undefined) {
  if (name === 'T') return MS[units ?? 'ms'] ?? 1;
  const mm = MM[units ?? ''];
  if (mm !== undefined) return mm * UNITS_PER_MM;
  const per = resolution && MM[(resolution.attributes['units'] ?? '').replace('1/', '')];
  const value = resolution && numberOf(resolution.attributes['value']);
  return per && value ? (per * UNITS_PER_MM) / value : undefined;
}

function styleOf(brush: XmlNode): InkStyle {
  const properties = new Map(
    elementsNamed('brushProperty', [brush]).map(({ attributes }) => [attributes['name'], attributes]),
  );
  const width = properties.get('width');
  const colour = (properties.get('color')?.['value'] ?? '').toLowerCase();
  const nature = noteOf(brush, 'pen');
  const isMask = properties.get('rasterOp')?.['value'] === 'maskPen';
  const mm = MM[width?.['units'] ?? 'mm'] ?? 1;
  return {
    nature: NATURES.includes(nature as Nature) ? (nature as Nature) : isMask ? 'highlighter' : 'pen',
    colour: isHexColour(colour) ? colour : PLAIN.colour,
    width: width
      ? within(INK_WIDTH, Math.round(numberOf(width['value']) * mm * UNITS_PER_MM * 100) / 100)
      : PLAIN.width,
    opacity: within(
      { min: 0.05, max: 1 },
      round3(1 - transparencyOf(properties.get('transparency')?.['value'])),
    ),
  };
}

/** 0 to 1, or 0 to 255 as some programs write it. */
function transparencyOf(value: string | undefined): number {
  const number = numberOf(value);
  return number > 1 ? number / 255 : number;
}

/** Ink of which nobody knows how large it is, across most of the room there is. */
function fitted(marks: readonly ReadMark[], { width, height }: { width: number; height: number }): void {
  const strokes = marks.flatMap(({ body }) => (body.kind === 'stroke' ? [body.points as number[]] : []));
  if (strokes.length === 0) return;
  const box = strokes.map((points) => boundsOfFlat(points, STRIDE)).reduce(unionRect);
  const k = Math.min((width * 0.8) / (box.width || 1), (height * 0.8) / (box.height || 1));
  for (const points of strokes)
    for (let i = 0; i < points.length; i += STRIDE) {
      points[i] = round2(width * 0.1 + (points[i]! - box.x) * k);
      points[i + 1] = round2(height * 0.1 + (points[i + 1]! - box.y) * k);
    }
}

function numberOf(value: string | undefined): number {
  const number = Number(value ?? 0);
  return Number.isFinite(number) ? number : 0;
}

function within({ min, max }: { min: number; max: number }, value: number): number {
  return Math.min(max, Math.max(min, value));
}

const round2 = (value: number) => Math.round(value * 100) / 100;
const round3 = (value: number) => Math.round(value * 1000) / 1000;
