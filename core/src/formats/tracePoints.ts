import { MAX_COORDINATE } from '../marks/fields.js';

/** A channel of a trace format (InkML §3.1): where its values stand, and what they mean. */
export interface Channel {
  name: string;
  /** Page units, or ms, to a unit of its values; undefined where no unit is known. */
  scale: number | undefined;
  min: number;
  max: number | undefined;
}

/** Time between points whose times nobody knows, ms. */
const STEP_MS = 10;
const LONGEST_MS = 3_600_000;
/** A value with what stands before it: `!` as it is, `'` the difference, `"` the difference of differences (§3.2.2). */
const VALUE = /([!'"])?\s*([-+]?(?:\d+\.?\d*|\.\d+)(?:[eE][-+]?\d+)?|#[0-9a-fA-F]+|[TF*?])/g;

type Way = '!' | "'" | '"';

/** A channel's value so far, and how the next one is told. */
interface Told {
  way: Way;
  value: number;
  step: number;
  /** What was written last. */
  written: number;
}

/**
 * The points of a trace (InkML §3.2), flat x, y, pressure, time: values as they are, or differences to the point before, as
 * their prefixes say, which hold until others come. Points that say too little are left out.
 */
export function tracePoints(text: string, channels: readonly Channel[]): number[] {
  const told: Told[] = channels.map(() => ({ way: '!', value: 0, step: 0, written: 0 }));
  const place = (name: string) => channels.findIndex((channel) => channel.name === name);
  const [x, y, f, t] = [place('X'), place('Y'), place('F'), place('T')];
  const points: number[] = [];
  let count = 0;
  let begin: number | undefined;
  for (const sample of text.split(',')) {
    if (!takeSample(sample, told)) continue;
    const at = (index: number) => told[index]!.value * (channels[index]!.scale ?? 1);
    if (x < 0 || y < 0) return [];
    const time = t < 0 ? count * STEP_MS : at(t);
    begin ??= time;
    const row = [
      round2(limited(at(x))),
      round2(limited(at(y))),
      f < 0 ? 0.5 : pressureOf(told[f]!.value, channels[f]!),
      Math.round(Math.min(LONGEST_MS, Math.max(0, time - begin))),
    ];
    if (row.every(Number.isFinite)) points.push(...row);
    count += 1;
  }
  return points;
}

/** Takes one point in; whether it told all channels but those that may be missing at its end. */
function takeSample(sample: string, told: readonly Told[]): boolean {
  let index = 0;
  for (const [, prefix, written] of sample.matchAll(VALUE)) {
    const channel = told[index];
    if (!channel) break;
    index += 1;
    if (prefix !== undefined) channel.way = prefix as Way;
    take(channel, written!);
  }
  return index >= Math.min(2, told.length) && index > 0;
}

function take(channel: Told, written: string): void {
  if (written === '?') return;
  // The same value, difference or difference of differences again.
  const isAgain = written === '*';
  if (isAgain && channel.way === '!') return;
  const number = isAgain
    ? channel.written
    : written.startsWith('#')
      ? parseInt(written.slice(1), 16)
      : Number(written);
  if (!Number.isFinite(number)) return;
  channel.written = number;
  if (channel.way === '!') {
    channel.step = number - channel.value;
    channel.value = number;
    return;
  }
  channel.step = channel.way === "'" ? number : channel.step + number;
  channel.value += channel.step;
}

/** 0 to 1 by the range that the channel says; what has no range is taken for a part of 1, or of what pens tell. */
function pressureOf(value: number, { min, max }: Channel): number {
  const most = max ?? (value <= 1 ? 1 : value <= 1023 ? 1023 : 32767);
  const part = most > min ? (value - min) / (most - min) : 0.5;
  return Math.round(Math.min(1, Math.max(0, part)) * 1000) / 1000;
}

function limited(value: number): number {
  return Math.min(MAX_COORDINATE, Math.max(-MAX_COORDINATE, value));
}

const round2 = (value: number) => Math.round(value * 100) / 100;
