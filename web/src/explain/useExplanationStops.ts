import type { Explanation, ExplanationStop } from '@doodla/core';
import type { PlayedPart } from '@doodla/core/explain';
import { placeAt, timeOfPlace } from '@doodla/core/explain';
import { nanoid } from 'nanoid';
import { useEffect, useMemo, useState } from 'react';
import type { Player } from '../replay/player';
import type { PlayedStop, Stops } from '../replay/useStops';

/** The stops of an explanation; `keep` keeps all of them, or throws. What cannot be kept is taken back and told. */
export function useExplanationStops(
  { stops: first }: Pick<Explanation, 'stops'>,
  parts: readonly PlayedPart[],
  player: Player,
  keep: (stops: ExplanationStop[]) => Promise<void>,
  onProblem: (sentence: string) => void,
): Stops {
  const [stops, setStops] = useState<readonly ExplanationStop[]>(first);
  const [gone, setGone] = useState<PlayedStop>();
  const played = useMemo(() => playedOf(stops, parts, player), [stops, parts, player]);
  useEffect(() => {
    player.waitAt(played.map(({ time }) => time));
  }, [player, played]);

  const set = async (next: readonly ExplanationStop[]): Promise<boolean> => {
    setStops(next);
    setGone(undefined);
    try {
      await keep([...next]);
      return true;
    } catch (error) {
      setStops(stops);
      onProblem((error as Error).message);
      return false;
    }
  };
  const put = async (stop: Omit<ExplanationStop, 'id'>): Promise<string | undefined> => {
    const id = nanoid();
    return (await set([...stops, { ...stop, id }])) ? id : undefined;
  };
  return {
    played,
    async add(time) {
      const place = placeAt(parts, time);
      return place && put({ ...place, text: '', seconds: null });
    },
    change({ id, text, seconds }) {
      void set(stops.map((one) => (one.id === id ? { ...one, text, seconds } : one)));
    },
    gone,
    remove(stop) {
      void set(stops.filter(({ id }) => id !== stop.id)).then((done) => done && setGone(stop));
    },
    putBack({ time, text, seconds }) {
      const place = placeAt(parts, time);
      if (place) void put({ ...place, text, seconds });
    },
  };
}

/** Those that play, in the order of their times. */
function playedOf(
  stops: readonly ExplanationStop[],
  parts: readonly PlayedPart[],
  { replay }: Player,
): PlayedStop[] {
  return stops
    .flatMap((stop): PlayedStop[] => {
      const time = timeOfPlace(parts, stop);
      const page = time === undefined ? undefined : replay.at(time)?.page;
      if (time === undefined || page === undefined) return [];
      const { id, text, seconds } = stop;
      return [{ id, text, seconds, page, time, at: replay.realTime(time) }];
    })
    .sort((a, b) => a.time - b.time);
}
