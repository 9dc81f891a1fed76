import type { Outbox, WaitingOperation } from '@doodla/core/client';
import type { IDBPDatabase } from 'idb';
import { openDB } from 'idb';

interface Entry extends WaitingOperation {
  /** Log and author, so that nobody sends another's work from a shared computer. */
  owner: string;
}

let database: Promise<IDBPDatabase> | undefined;

function open(): Promise<IDBPDatabase> {
  database ??= openDB('doodla', 1, {
    upgrade(db) {
      db.createObjectStore('outbox', { autoIncrement: true }).createIndex('owner', 'owner');
    },
    // Another tab waits for this one to let go; it is opened anew when it is next written to.
    blocking: (_from, _to, event) => {
      database = undefined;
      (event.target as IDBDatabase).close();
    },
    // The browser has closed it by itself, as when somebody clears what a site has stored.
    terminated: () => {
      database = undefined;
    },
  });
  return database;
}

/** Operations that the server has not acknowledged yet, kept in the browser across reloads. */
export class BrowserOutbox implements Outbox {
  /** Keeps writes in their order. */
  private tail: Promise<unknown> = Promise.resolve();

  /** `onFailed` is told when this browser keeps nothing, so that a reload while offline would lose what waits. */
  constructor(
    private readonly owner: string,
    private readonly onFailed: (error: unknown) => void,
  ) {}

  /** What is waiting, oldest first. */
  async load(): Promise<WaitingOperation[]> {
    try {
      const entries = (await (await open()).getAllFromIndex('outbox', 'owner', this.owner)) as Entry[];
      // Those of an older version do not say which pages they concern.
      return entries.map(({ operation, pages = [] }) => ({ operation, pages }));
    } catch (error) {
      this.onFailed(error);
      return [];
    }
  }

  add(waiting: WaitingOperation): void {
    const entry: Entry = { owner: this.owner, ...waiting };
    this.enqueue(async (db) => db.add('outbox', entry));
  }

  remove(id: string): void {
    this.enqueue(async (db) => {
      const transaction = db.transaction('outbox', 'readwrite');
      for await (const cursor of transaction.store.index('owner').iterate(this.owner)) {
        if ((cursor.value as Entry).operation.id === id) await cursor.delete();
      }
      await transaction.done;
    });
  }

  /** Resolves once everything so far is written. */
  async settled(): Promise<void> {
    await this.tail;
  }

  private enqueue(task: (db: IDBPDatabase) => Promise<unknown>): void {
    this.tail = this.tail
      .then(async () => task(await open()))
      .catch((error: unknown) => this.onFailed(error));
  }
}
