import type { Caption } from '../api/explanations.js';
import type { Cue } from './captionFiles.js';
import type { PlayedPart } from './playedParts.js';
import { placeAt, timeOfPlace } from './playedParts.js';

/** What is said when while parts play, in the order of its times; what was cut out is left out, and what was cut off is shorter. */
export function cuesOf(
  captions: readonly Caption[],
  parts: readonly PlayedPart[],
): (Cue & { index: number })[] {
  return captions
    .flatMap(({ take, from, length, text }, index) => {
      if (length === 0) return [];
      const part = parts.find(
        (one) => one.take.id === take && from < one.from + one.length && from + length > one.from,
      );
      if (!part) return [];
      const [first, last] = [Math.max(from, part.from), Math.min(from + length, part.from + part.length)];
      const start = part.start - part.from;
      return [{ from: start + first, to: start + last, text, index }];
    })
    .sort((a, b) => a.from - b.from);
}

/** A cue as it is kept, by the take that plays when it begins; nothing where nothing plays then. */
export function captionOf({ from, to, text }: Cue, parts: readonly PlayedPart[]): Caption | undefined {
  const place = placeAt(parts, from);
  if (!place || timeOfPlace(parts, place) === undefined || to <= from) return undefined;
  return { ...place, length: Math.round(to - from), text };
}
