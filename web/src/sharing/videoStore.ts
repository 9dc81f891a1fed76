import type { DBSchema, IDBPDatabase } from 'idb';
import { openDB } from 'idb';
import { nanoid } from 'nanoid';
import type { RecordedVideo } from '../media/videoFile';
import type { VideoPart } from '../media/videoMaker';
import { PARTS } from '../media/videoMaker';

/** A video that is being recorded here, or is not on a page yet. */
export interface KeptVideo {
  id: string;
  /** The log to whose pages it goes. */
  log: string;
  name: string;
  /** The page after which it goes. */
  after: string | undefined;
  width: number;
  height: number;
  types: Readonly<Record<VideoPart, string | null>>;
  /** Seconds. */
  length: number;
  /** When something of it was last kept, milliseconds since 1970 by this device. */
  keptAt: number;
}

interface KeptPart {
  video: string;
  part: VideoPart;
  /** 0, 1, 2 … */
  number: number;
  bytes: Uint8Array<ArrayBuffer>;
}

interface Kept extends DBSchema {
  videos: { key: string; value: KeptVideo };
  parts: { key: [string, VideoPart, number]; value: KeptPart };
}

let database: Promise<IDBPDatabase<Kept>> | undefined;

function open(): Promise<IDBPDatabase<Kept>> {
  database ??= openDB<Kept>('doodla-videos', 1, {
    upgrade(db) {
      db.createObjectStore('videos', { keyPath: 'id' });
      db.createObjectStore('parts', { keyPath: ['video', 'part', 'number'] });
    },
    terminated: () => {
      database = undefined;
    },
  });
  return database;
}

const allOf = (video: string, part: VideoPart) =>
  IDBKeyRange.bound([video, part, 0], [video, part, Infinity]);

/** Those that are being recorded in this window. */
const running = new Set<string>();

/** Videos as they are recorded, kept in this browser until they are on a page. */
export const videoStore = {
  /** Keeps what has come of a video since, and what it is by now, both or neither. */
  async put(video: KeptVideo, parts: readonly KeptPart[]): Promise<void> {
    const work = (await open()).transaction(['videos', 'parts'], 'readwrite');
    await Promise.all([
      work.objectStore('videos').put(video),
      ...parts.map((part) => work.objectStore('parts').put(part)),
      work.done,
    ]);
  },

  /** Those of a log that are not being recorded in this window, the oldest first. */
  async of(log: string): Promise<KeptVideo[]> {
    const all = await (await open()).getAll('videos');
    return all.filter((one) => one.log === log && !running.has(one.id)).sort((a, b) => a.keptAt - b.keptAt);
  },

  async read({ id, types }: Pick<KeptVideo, 'id' | 'types'>): Promise<RecordedVideo> {
    const db = await open();
    const blob = async (part: VideoPart) =>
      new Blob(
        (await db.getAll('parts', allOf(id, part))).map(({ bytes }) => bytes),
        { type: types[part] ?? '' },
      );
    const [picture, sound] = [await blob('picture'), await blob('sound')];
    return { picture, sound: sound.size > 0 ? sound : undefined };
  },

  async forget(id: string): Promise<void> {
    const work = (await open()).transaction(['videos', 'parts'], 'readwrite');
    await Promise.all([
      work.objectStore('videos').delete(id),
      ...PARTS.map((part) => work.objectStore('parts').delete(allOf(id, part))),
      work.done,
    ]);
  },
};

/** Keeps a video while it is recorded, second by second. */
export class VideoKeeper {
  private readonly counts: Record<VideoPart, number> = { picture: 0, sound: 0 };
  private waiting: KeptPart[] = [];
  private tail: Promise<unknown> = Promise.resolve();

  constructor(private readonly id = nanoid()) {
    running.add(id);
  }

  /** Takes what has come; it is kept with the next `keep`. */
  add(part: VideoPart, bytes: Uint8Array<ArrayBuffer>): void {
    this.waiting.push({ video: this.id, part, number: this.counts[part]++, bytes });
  }

  /** Keeps what has come, and what it is by now. What cannot be kept is tried again the next time. */
  keep(video: Omit<KeptVideo, 'id' | 'keptAt'>): void {
    const parts = this.waiting.splice(0);
    this.tail = this.tail
      .then(() => videoStore.put({ ...video, id: this.id, keptAt: Date.now() }, parts))
      // It is in memory as well, and only lost with the window.
      .catch(() => this.waiting.unshift(...parts));
  }

  /** Ends it; it stays until it is elsewhere too. Resolves when it is kept as far as that goes. */
  async end(isElsewhere: boolean): Promise<void> {
    running.delete(this.id);
    await this.tail;

    // What could not be forgotten is offered once more.
    if (isElsewhere) await videoStore.forget(this.id).catch(() => undefined);
  }
}
