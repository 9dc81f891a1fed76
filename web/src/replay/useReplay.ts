import { isShownIn } from '@doodla/core';
import type { Recorded, Stretch } from '@doodla/core/replay';
import { Replay } from '@doodla/core/replay';
import { useEffect, useMemo, useRef } from 'react';
import type { Room } from '../room/room';
import type { PlayedSound } from './player';
import { Player } from './player';

/** Longest pause where pauses are shortened, milliseconds. */
const SHORT_PAUSE = 2000;

/** What is played, and how. */
export interface Wanted {
  /** One page; the whole class with its turns where it is left out. */
  page: string | undefined;
  /** Whose marks; everybody's where it is left out. */
  author: string | undefined;
  /** Whether pauses are as long as they were. */
  pauses: boolean;
}

/** What of real time plays, and what is heard meanwhile. */
interface Explaining {
  readonly parts: readonly Stretch[];
  readonly sound: PlayedSound;
}

/** A player of what was done. Another choice goes on where the one before was. */
export function useReplay(
  recorded: Recorded,
  room: Room,
  { page, author, pauses }: Wanted,
  explaining?: Explaining,
): Player {
  const player = useMemo(() => {
    const replay = new Replay(recorded, {
      page,
      counts: (mark) =>
        isShownIn(room.spaces.shownOn(mark.page), mark.space) &&
        (author === undefined || mark.author === author),
      leads: (who) => room.personOf(who) === undefined,
      longestPause: pauses ? Infinity : SHORT_PAUSE,
      parts: explaining?.parts,
    });
    return new Player(replay, undefined, explaining?.sound);
  }, [recorded, room, page, author, pauses, explaining]);
  const before = useRef<Player>(undefined);
  useEffect(() => {
    const last = before.current;
    before.current = player;
    if (last && last !== player) {
      player.speed.set(last.speed.get());
      const { time } = last.state.get();
      player.seek(explaining ? time : player.replay.timeOf(last.replay.realTime(time)));
    }
    return () => player.pause();
  }, [player, explaining]);
  return player;
}

/** Everybody who has marks in it, in the order in which they first wrote. */
export function writersIn({ operations }: Recorded, room: Room): string[] {
  const writers = new Set<string>();
  for (const { operation } of operations)
    for (const change of operation.changes)
      if (change.do === 'add' && isShownIn(room.spaces.shownOn(change.mark.page), change.mark.space))
        writers.add(change.mark.author);
  return [...writers];
}
