import type { Explanation, Take, TakePlace } from '../api/explanations.js';
import type { Noted } from './noted.js';
import type { PlayedPart } from './playedParts.js';
import { NotedTake } from './shown.js';
import { SoundClock } from './soundClock.js';

/** A take that holds nothing but a part that plays, and the part. */
export interface SettledTake {
  readonly take: Take;
  readonly part: PlayedPart;
}

/** For each part that plays a take of its own, in their order; `newId` gives each a name. */
export function settledTakes(parts: readonly PlayedPart[], newId: () => string): SettledTake[] {
  return parts.map((part) => {
    const { take, from, length, voice } = part;
    const startedAt = Math.round(take.startedAt + from);
    const tracks = { voice: voice?.take.voice ?? null, video: take.video, face: take.face };
    return { part, take: { id: newId(), startedAt, length: Math.round(length), ...tracks } };
  });
}

/** What was noted while a part was recorded, by the time since it begins; at first how things stood then. */
export function settledNotes(noted: ReadonlyMap<string, readonly Noted[]>, part: PlayedPart): Noted[] {
  const { from, length, take, voice } = part;
  const all = noted.get(take.id) ?? [];
  const { focus, uncovered, playing, live } = new NotedTake(all).at(from);
  const heard = voice ? new SoundClock(noted.get(voice.take.id) ?? []) : undefined;
  const page = all.findLast((one) => one.do === 'page' && one.t <= from);
  const isSaid = ({ do: what }: Noted) => what === 'sound' || what === 'lost';
  const within = all.filter((one) => one.t > from && one.t <= from + length && !isSaid(one));
  const settled: Noted[] = [
    ...(page ? [{ ...page, t: 0 }] : []),
    { t: 0, do: 'focus', focus },
    { t: 0, do: 'uncovered', marks: uncovered },
    { t: 0, do: 'playing', playing },
    { t: 0, do: 'live', live },
    ...(heard && voice ? heard.lostIn(voice.from, voice.from + length) : []),
    ...within.map((one) => ({ ...one, t: Math.round(one.t - from) })),
  ];
  return settled.sort((a, b) => a.t - b.t);
}

/** Stops, chapters and captions at the takes that hold the parts; those at what does not play go. */
export function settledPlaces<Place extends TakePlace>(
  places: readonly Place[],
  settled: readonly SettledTake[],
): Place[] {
  return places.flatMap((place) => {
    const found = settled.find(
      ({ part: { take, from, length } }) =>
        take.id === place.take && place.from >= from && place.from <= from + length,
    );
    if (!found) return [];
    return [{ ...place, take: found.take.id, from: Math.round(place.from - found.part.from) }];
  });
}

/** An explanation of nothing but what plays; its parts are all that its takes hold. */
export function settledSettings<Said extends Pick<Explanation, 'stops' | 'chapters' | 'captions'>>(
  said: Said,
  settled: readonly SettledTake[],
): Said {
  return {
    ...said,
    stops: settledPlaces(said.stops, settled),
    chapters: settledPlaces(said.chapters, settled),
    captions: settledPlaces(
      said.captions.filter(({ length }) => length > 0),
      settled,
    ),
  };
}
