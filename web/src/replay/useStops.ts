import type { ReplayStop, StopPlace } from '@doodla/core';
import type { Replay } from '@doodla/core/replay';
import { useEffect, useMemo, useState } from 'react';
import { addStop, changeStop, removeStop } from '../api/replay';
import type { Room } from '../room/room';
import { logOf } from './bringBack';
import type { Player } from './player';

/** A stop of what is played, and when in the playback it is. */
export interface PlayedStop extends ReplayStop {
  readonly time: number;
}

/** The stops of a lesson or class; what a teacher does with them is seen at once, and taken back where it could not be kept. */
export function useStops(room: Room, first: readonly ReplayStop[], player: Player) {
  const [stops, setStops] = useState(first);
  const [gone, setGone] = useState<ReplayStop>();
  const played = useMemo(() => playedStops(player.replay, stops), [player, stops]);
  useEffect(() => {
    player.waitAt(played.map(({ time }) => time));
  }, [player, played]);
  const log = logOf(room);
  const tell = (error: Error) => room.tellProblem(error.message);
  const put = (stop: ReplayStop) => setStops((now) => [...now.filter(({ id }) => id !== stop.id), stop]);

  const add = async (place: StopPlace): Promise<ReplayStop | undefined> => {
    try {
      const stop = await addStop(log, place);
      setGone(undefined);
      put(stop);
      return stop;
    } catch (error) {
      tell(error as Error);
      return undefined;
    }
  };
  return {
    played,
    add,
    change(stop: ReplayStop): void {
      const before = stops.find(({ id }) => id === stop.id);
      put(stop);
      changeStop(log, stop).catch((error: Error) => {
        if (before) put(before);
        tell(error);
      });
    },
    /** What was taken away last, to be put back. */
    gone,
    remove(stop: ReplayStop): void {
      setStops((now) => now.filter(({ id }) => id !== stop.id));
      setGone(stop);
      removeStop(log, stop.id).catch((error: Error) => {
        put(stop);
        setGone(undefined);
        tell(error);
      });
    },
    putBack({ at, page, text, seconds }: ReplayStop): void {
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
