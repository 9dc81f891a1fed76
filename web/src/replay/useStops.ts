import type { ReplayStop, StopPlace } from '@doodla/core';
import type { Replay } from '@doodla/core/replay';
import { useEffect, useMemo, useState } from 'react';
import { addStop, changeStop, removeStop } from '../api/replay';
import type { Room } from '../room/room';
import { logOf } from '../room/logOf';
import type { Player } from './player';

/** A stop of what is played, and when in the playback it is. */
export interface PlayedStop extends ReplayStop {
  readonly time: number;
}

/** Stops, and what a teacher does with them. */
export interface Stops {
  readonly played: readonly PlayedStop[];
  /** Puts one at a time of the playback. Gives its id, or nothing where it could not be put. */
  add(time: number): Promise<string | undefined>;
  change(stop: Pick<PlayedStop, 'id' | 'text' | 'seconds'>): void;
  /** What was taken away last, to be put back. */
  readonly gone: PlayedStop | undefined;
  remove(stop: PlayedStop): void;
  putBack(stop: PlayedStop): void;
}

/** The stops of a lesson or class; what a teacher does with them is seen at once, and taken back where it could not be kept. */
export function useStops(room: Room, first: readonly ReplayStop[], player: Player): Stops {
  const [stops, setStops] = useState(first);
  const [gone, setGone] = useState<PlayedStop>();
  const played = useMemo(() => playedStops(player.replay, stops), [player, stops]);
  useEffect(() => {
    player.waitAt(played.map(({ time }) => time));
  }, [player, played]);
  const log = logOf(room);
  const tell = (error: Error) => room.tellProblem(error.message);
  const put = (stop: ReplayStop) => setStops((now) => [...now.filter(({ id }) => id !== stop.id), stop]);

  const add = async (place: StopPlace): Promise<string | undefined> => {
    try {
      const stop = await addStop(log, place);
      setGone(undefined);
      put(stop);
      return stop.id;
    } catch (error) {
      tell(error as Error);
      return undefined;
    }
  };
  return {
    played,
    async add(time) {
      const moment = player.replay.at(time);
      const at = player.replay.realTime(time);
      return moment && add({ at, page: moment.page, text: '', seconds: null });
    },
    change({ id, text, seconds }) {
      const before = stops.find((one) => one.id === id);
      if (!before) return;
      const stop = { ...before, text, seconds };
      put(stop);
      changeStop(log, stop).catch((error: Error) => {
        put(before);
        tell(error);
      });
    },
    gone,
    remove(stop) {
      setStops((now) => now.filter(({ id }) => id !== stop.id));
      setGone(stop);
      removeStop(log, stop.id).catch((error: Error) => {
        const { id, at, page, text, seconds } = stop;
        put({ id, at, page, text, seconds });
        setGone(undefined);
        tell(error);
      });
    },
    putBack({ at, page, text, seconds }) {
      void add({ at, page, text, seconds });
    },
  };
}

/** Those that lie in what is played, on the page that is seen then, in the order of their times. */
export function playedStops(replay: Replay, stops: readonly ReplayStop[]): PlayedStop[] {
  const [start, end] = [replay.realTime(0), replay.realTime(replay.length)];
  return stops
    .map((stop) => ({ ...stop, time: replay.timeOf(stop.at) }))
    .filter(({ at, page, time }) => at >= start && at <= end && replay.at(time)?.page === page)
    .sort((a, b) => a.time - b.time);
}
