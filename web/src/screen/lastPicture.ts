import type { ViewPicture } from '@doodla/core';
import type { IDBPDatabase } from 'idb';
import { openDB } from 'idb';

/** What was shown last from this browser, so that it is not lost when the page is loaded anew in the middle of it. */
export interface LastPicture {
  sitting: string;
  page: string;
  place: Omit<ViewPicture, 'material'>;
  blob: Blob;
}

const STORE = 'last';

async function withStore<T>(run: (db: IDBPDatabase) => Promise<T>): Promise<T | undefined> {
  try {
    const db = await openDB('doodla-screen', 1, { upgrade: (made) => void made.createObjectStore(STORE) });
    try {
      return await run(db);
    } finally {
      db.close();
    }
  } catch {
    // A browser that keeps nothing only loses the last picture; what is written is kept elsewhere.
    return undefined;
  }
}

export const keepLast = (picture: LastPicture) => withStore((db) => db.put(STORE, picture, 'picture'));

export const forgetLast = () => withStore((db) => db.delete(STORE, 'picture'));

export const lastPicture = () =>
  withStore((db) => db.get(STORE, 'picture') as Promise<LastPicture | undefined>);
