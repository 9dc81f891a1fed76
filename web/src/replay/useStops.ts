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
  const kept = (work: Promise<unknown>, before: readonly ReplayStop[]) =>
    work.catch((error: Error) => {
      setStops(before);
      room.tellProblem(error.message);
    });

  const add = async (place: StopPlace): Promise<ReplayStop | undefined> => {
    setGone(undefined);
    try {
      const stop = await addStop(log, place);
      setStops((now) => [...now, stop]);
      return stop;
    } catch (error) {
      room.tellProblem((error as Error).message);
      return undefined;
    }
  };
  return {
    played,
    add,
    change(stop: ReplayStop): void {
      setStops(stops.map((each) => (each.id === stop.id ? stop : each)));
      void kept(changeStop(log, stop), stops);
    },
    /** What was taken away last, to be put back. */
    gone,
    remove(stop: ReplayStop): void {
      setStops(stops.filter(({ id }) => id !== stop.id));
      setGone(stop);
      void kept(removeStop(log, stop.id), stops);
    },
    putBack({ at, page, text, seconds }: ReplayStop): void {
      setGone(undefined);
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
