import type { Part, Take, TakePlace } from '../api/explanations.js';
import type { Span } from '../replay/replay.js';

/** How long parts play, milliseconds. */
export function lengthOf(parts: readonly Part[]): number {
  return parts.reduce((sum, { length }) => sum + length, 0);
}

/** The parts that play within a span of their playback, cut where it begins and ends. */
export function partsWithin(parts: readonly Part[], { from, to }: Span): Part[] {
  let start = 0;
  return parts.flatMap((part) => {
    const [first, last] = [Math.max(0, from - start), Math.min(part.length, to - start)];
    start += part.length;
    return last > first ? [cutPart(part, first, last)] : [];
  });
}

/** All but a span of the playback. */
export function cutOut(parts: readonly Part[], span: Span): Part[] {
  return replaced(parts, span, []);
}

/** Others in place of a span of the playback. */
export function replaced(parts: readonly Part[], { from, to }: Span, by: readonly Part[]): Part[] {
  const end = lengthOf(parts);
  return joined([
    ...partsWithin(parts, { from: 0, to: from }),
    ...by,
    ...partsWithin(parts, { from: Math.max(from, to), to: end }),
  ]);
}

/** What is drawn in a span stays; what is heard there comes from a take, as far as it goes, and is silent after it. */
export function withVoice(
  parts: readonly Part[],
  span: Span,
  { id, length }: Pick<Take, 'id' | 'length'>,
): Part[] {
  let at = 0;
  const heard = partsWithin(parts, span).flatMap((part) => {
    const from = at;
    at += part.length;
    const spoken = Math.min(part.length, Math.max(0, length - from));
    return [
      ...(spoken > 0 ? [{ ...cutPart(part, 0, spoken), voice: { take: id, from } }] : []),
      ...(spoken < part.length ? [{ ...cutPart(part, spoken, part.length), voice: null }] : []),
    ];
  });
  return replaced(parts, span, heard);
}

/** What is heard in a span stays; what is drawn there comes from a take, whose last picture stays where it is shorter. */
export function withDrawing(
  parts: readonly Part[],
  span: Span,
  { id, length }: Pick<Take, 'id' | 'length'>,
): Part[] {
  let at = 0;
  const drawn = partsWithin(parts, span).flatMap((part) => {
    const from = at;
    at += part.length;
    const shown = Math.min(part.length, Math.max(0, length - from));
    return shown > 0 ? [{ take: id, from, length: shown, voice: voiceOf(part) }] : [];
  });
  return replaced(parts, span, drawn);
}

/** Silences are not longer than `longest` any more: of each that is, the middle goes. They are spans of the playback, in order. */
export function shortened(parts: readonly Part[], silences: readonly Span[], longest: number): Part[] {
  return [...silences]
    .filter(({ from, to }) => to - from > longest)
    .reverse()
    .reduce<Part[]>(
      (left, { from, to }) => cutOut(left, { from: from + longest / 2, to: to - longest / 2 }),
      [...parts],
    );
}

function cutPart(part: Part, first: number, last: number): Part {
  const { take, from, voice } = part;
  const cut: Part = { take, from: from + first, length: last - first };
  if (voice === undefined) return cut;
  return { ...cut, voice: voice && { ...voice, from: voice.from + first } };
}

function voiceOf({ take, from, voice }: Part): TakePlace | null {
  return voice === undefined ? { take, from } : voice;
}

/** Parts that follow on each other in the same takes are one. */
function joined(parts: readonly Part[]): Part[] {
  const all: Part[] = [];
  for (const part of parts) {
    const last = all.at(-1);
    if (last && goesOn(last, part)) all[all.length - 1] = { ...last, length: last.length + part.length };
    else all.push(part);
  }
  return all;
}

function goesOn(before: Part, after: Part): boolean {
  if (before.take !== after.take || before.from + before.length !== after.from) return false;
  const [heard, next] = [before.voice, after.voice];
  if (!heard || !next) return heard === next;
  return heard.take === next.take && heard.from + before.length === next.from;
}
