import type { Explanation, Part, Take, TakePlace } from '../api/explanations.js';
import { countWhile } from '../ops/countWhile.js';
import type { Stretch } from '../replay/playClock.js';

/** A stretch of a take that plays, and when in the playback it begins; milliseconds. */
export interface PlayedPart {
  readonly take: Take;
  readonly from: number;
  readonly length: number;
  readonly start: number;
  /** Where what is heard comes from; null where nothing is. */
  readonly voice: { readonly take: Take; readonly from: number } | null;
}

/** What plays of an explanation, in its order. What its takes do not have any more is left out. */
export function playedParts({ takes, parts }: Pick<Explanation, 'takes' | 'parts'>): PlayedPart[] {
  const known = new Map(takes.map((take) => [take.id, take]));
  let start = 0;
  return (parts ?? takes.map(wholeOf)).flatMap((part) => {
    const take = known.get(part.take);
    const length = take ? Math.min(part.length, take.length - part.from) : 0;
    if (!take || length <= 0) return [];
    const played = { take, from: part.from, length, start, voice: voiceOf(part, known) };
    start += length;
    return [played];
  });
}

/** A whole take as a part. */
export function wholeOf({ id, length }: Take): Part {
  return { take: id, from: 0, length };
}

function voiceOf(part: Part, known: ReadonlyMap<string, Take>): PlayedPart['voice'] {
  const { take, from } = part.voice ?? part;
  const heard = part.voice === null ? undefined : known.get(take);
  return heard && heard.voice !== null ? { take: heard, from } : null;
}

/** When what plays was drawn, by the server's clock, in the order in which it plays. */
export function stretchesOf(parts: readonly PlayedPart[]): Stretch[] {
  return parts.map(({ take, from, length }) => {
    const begin = take.startedAt + from;
    return { from: begin, to: begin + length };
  });
}

/** The part that plays at a time; the last one after its end, undefined where there is none. */
export function partAt(parts: readonly PlayedPart[], time: number): PlayedPart | undefined {
  return parts[Math.max(0, countWhile(parts.length, (i) => parts[i]!.start <= time) - 1)];
}

/** What is at a time of the playback: which take, and where in it. */
export function placeAt(parts: readonly PlayedPart[], time: number): TakePlace | undefined {
  const part = partAt(parts, time);
  return (
    part && { take: part.take.id, from: Math.round(part.from + Math.min(part.length, time - part.start)) }
  );
}

/** When a place of a take plays first; undefined where it does not. */
export function timeOfPlace(parts: readonly PlayedPart[], place: TakePlace): number | undefined {
  const part = parts.find(
    ({ take, from, length }) => take.id === place.take && place.from >= from && place.from <= from + length,
  );
  return part && part.start + place.from - part.from;
}
