import type { Person } from '@doodla/core';
import type { Room } from '../room/room';
import { useEffect, useState } from 'react';

/** So long after their last stroke somebody still counts as writing, milliseconds. */
const STILL_WRITING_MS = 4000;
const LOOK_EVERY_MS = 1000;
/** Ink comes by the hundred messages a second; so often it is asked whose it is, milliseconds. */
const LOOK_AT_INK_MS = 200;

/** Notes who writes, by what is heard of their ink and marks. */
export class Writing {
  private lookedAt = -Infinity;
  private readonly lastAt = new Map<string, number>();
  private readonly stops: (() => void)[];

  constructor(
    { ink, added }: Pick<Room, 'ink' | 'added'>,
    private readonly now = () => performance.now(),
  ) {
    this.stops = [
      ink.changed.subscribe(() => {
        if (this.now() < this.lookedAt + LOOK_AT_INK_MS) return;
        this.lookedAt = this.now();
        for (const author of ink.drawing()) this.lastAt.set(author, this.now());
      }),
      added.subscribe(({ author }) => this.lastAt.set(author, this.now())),
    ];
  }

  /** Who writes now, or has just written. */
  get authors(): ReadonlySet<string> {
    const since = this.now() - STILL_WRITING_MS;
    return new Set([...this.lastAt].flatMap(([author, at]) => (at >= since ? [author] : [])));
  }

  close(): void {
    for (const stop of this.stops) stop();
  }
}

/** Notes who writes in a class for as long as the component is there. */
export function useWriting(room: Room): Writing | undefined {
  const [writing, setWriting] = useState<Writing>();
  useEffect(() => {
    const made = new Writing(room);
    setWriting(made);
    return () => made.close();
  }, [room]);
  return writing;
}

/** Who writes just now. */
export function useAuthors(writing: Writing | undefined): ReadonlySet<string> {
  const [authors, setAuthors] = useState<ReadonlySet<string>>(writing?.authors ?? new Set());
  useEffect(() => {
    const timer = setInterval(() => writing && setAuthors(writing.authors), LOOK_EVERY_MS);
    return () => clearInterval(timer);
  }, [writing]);
  return authors;
}

export type Presence = 'writing' | 'here' | 'away' | 'offline';

export function presenceOf({ id, here, away }: Person, writing: ReadonlySet<string>): Presence {
  if (!here) return 'offline';
  if (writing.has(id)) return 'writing';
  return away ? 'away' : 'here';
}
