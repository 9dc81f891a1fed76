import type { ExplanationSettings, LogRef, Take, Track } from '@doodla/core';
import { TRACKS } from '@doodla/core';
import type { DBSchema, IDBPDatabase } from 'idb';
import { openDB } from 'idb';
import type { MendPlace } from './mended';

/** An explanation that is being recorded here, or not all of which is at the server. */
export interface KeptExplanation extends ExplanationSettings {
  id: string;
  log: LogRef;
  /** The teacher who records it, so that nobody sends another's from a shared computer. */
  owner: string;
  /** Where what is recorded goes, of one that was there already. */
  mend?: MendPlace | undefined;
}

/** A take of which not all is at the server. */
export interface KeptTake extends Take {
  explanation: string;
  /** When something of it was last kept, milliseconds since 1970 by this device. */
  keptAt: number;
  /** Whether nothing more comes. */
  over: boolean;
}

/** About a second of a track. */
export interface KeptPiece {
  take: string;
  track: Track;
  /** 0, 1, 2 … */
  number: number;
  bytes: Uint8Array<ArrayBuffer>;
}

interface Kept extends DBSchema {
  explanations: { key: string; value: KeptExplanation };
  takes: { key: string; value: KeptTake };
  pieces: { key: [string, Track, number]; value: KeptPiece };
}

let database: Promise<IDBPDatabase<Kept>> | undefined;

function open(): Promise<IDBPDatabase<Kept>> {
  database ??= openDB<Kept>('doodla-explanations', 1, {
    upgrade(db) {
      db.createObjectStore('explanations', { keyPath: 'id' });
      db.createObjectStore('takes', { keyPath: 'id' });
      db.createObjectStore('pieces', { keyPath: ['take', 'track', 'number'] });
    },
    terminated: () => {
      database = undefined;
    },
  });
  return database;
}

const allOf = (take: string, track: Track) => IDBKeyRange.bound([take, track, 0], [take, track, Infinity]);

/** What is recorded, kept in this browser until the server has it. */
export const recordedStore = {
  async explanations(owner: string): Promise<KeptExplanation[]> {
    return (await (await open()).getAll('explanations')).filter((one) => one.owner === owner);
  },

  async putExplanation(explanation: KeptExplanation): Promise<void> {
    await (await open()).put('explanations', explanation);
  },

  async takesOf(explanation: string): Promise<KeptTake[]> {
    const takes = (await (await open()).getAll('takes')).filter((one) => one.explanation === explanation);
    return takes.sort((a, b) => a.startedAt - b.startedAt);
  },

  /** Keeps what has come of a take since, and how long it is, both or neither. */
  async put(take: KeptTake, pieces: readonly KeptPiece[]): Promise<void> {
    const work = (await open()).transaction(['takes', 'pieces'], 'readwrite');
    await Promise.all([
      work.objectStore('takes').put(take),
      ...pieces.map((piece) => work.objectStore('pieces').put(piece)),
      work.done,
    ]);
  },

  /** The pieces of a track that are not at the server, in their order, at most so many. */
  async pieces(take: string, track: Track, most: number): Promise<KeptPiece[]> {
    return (await open()).getAll('pieces', allOf(take, track), most);
  },

  async removePieces(pieces: readonly KeptPiece[]): Promise<void> {
    const work = (await open()).transaction('pieces', 'readwrite');
    await Promise.all([
      ...pieces.map(({ take, track, number }) => work.store.delete([take, track, number])),
      work.done,
    ]);
  },

  /** Forgets an explanation with its takes; what of it is not at the server is lost. */
  async forget(explanation: string): Promise<void> {
    const takes = await recordedStore.takesOf(explanation);
    const work = (await open()).transaction(['explanations', 'takes', 'pieces'], 'readwrite');
    await Promise.all([
      work.objectStore('explanations').delete(explanation),
      ...takes.flatMap(({ id }) => [
        work.objectStore('takes').delete(id),
        ...TRACKS.map((track) => work.objectStore('pieces').delete(allOf(id, track))),
      ]),
      work.done,
    ]);
  },
};

export type RecordedStore = typeof recordedStore;
