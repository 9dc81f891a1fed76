import type { PlayedPart } from '@doodla/core/explain';
import { silencesIn, spansWithout } from '@doodla/core/explain';
import type { Replay, Span } from '@doodla/core/replay';
import { WorkerLink } from '../desk/workerLink';
import type { Material } from './useMaterial';
import type { Loudness } from './loudness.worker';

const WINDOW_MS = 50;

const link = new WorkerLink<Loudness>(
  () => new Worker(new URL('./loudness.worker.ts', import.meta.url), { type: 'module' }),
);

/** Where in a playback nothing is said or drawn, and nothing moves, for at least `least` milliseconds. Throws where its sound cannot be decoded. */
export async function silentSpans(
  played: readonly PlayedPart[],
  { sounds, shown }: Pick<Material, 'shown' | 'sounds'>,
  replay: Replay,
  least: number,
): Promise<Span[]> {
  const quiet = new Map<string, Span[]>();
  for (const [take, sound] of sounds)
    quiet.set(
      take,
      silencesIn(await link.ask((remote) => remote.loudnessOf(sound, WINDOW_MS)), WINDOW_MS, 0),
    );
  const silent = played.flatMap(({ start, length, voice }): Span[] => {
    if (!voice) return [{ from: start, to: start + length }];
    const shift = start - voice.from;
    const sound = shown.get(voice.take.id)?.sound;
    const taken = (place: number) => sound?.toTake(place) ?? place;
    return (quiet.get(voice.take.id) ?? [])
      .map(({ from, to }) => ({
        from: Math.max(start, taken(from) + shift),
        to: Math.min(start + length, taken(to) + shift),
      }))
      .filter(({ from, to }) => to > from);
  });
  const drawn = replay.steps.map((_, i) => replay.spanOf(i));
  const moving = played.flatMap(({ take, from, length, start }) =>
    (shown.get(take.id)?.liveSpans(from, from + length) ?? []).map((span) => ({
      from: span.from - from + start,
      to: span.to - from + start,
    })),
  );
  const busy = [...drawn, ...moving].sort((a, b) => a.from - b.from);
  return spansWithout(silent, busy, least);
}
