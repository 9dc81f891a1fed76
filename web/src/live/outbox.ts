import type { Operation } from '@doodla/core';
import type { IDBPDatabase } from 'idb';
import { openDB } from 'idb';

interface Entry {
  /** Log and author, so that nobody sends another's work from a shared computer. */
  owner: string;
  operation: Operation;
}

let database: Promise<IDBPDatabase> | undefined;

function open(): Promise<IDBPDatabase> {
  database ??= openDB('doodla', 1, {
    upgrade(db) {
      db.createObjectStore('outbox', { autoIncrement: true }).createIndex('owner', 'owner');
    },
  });
  return database;
}

/** Operations that the server has not acknowledged yet, kept in the browser across reloads. */
export class Outbox {
  /** Keeps writes in their order. */
  private tail: Promise<unknown> = Promise.resolve();

  constructor(private readonly owner: string) {}

  /** What is waiting, oldest first. */
  async load(): Promise<Operation[]> {
    const entries = (await (await open()).getAllFromIndex('outbox', 'owner', this.owner)) as Entry[];
    return entries.map(({ operation }) => operation);
  }

  add(operation: Operation): void {
    const entry: Entry = { owner: this.owner, operation };
    this.enqueue(async (db) => db.add('outbox', entry));
  }

  remove(id: string): void {
    this.enqueue(async (db) => {
      const transaction = db.transaction('outbox', 'readwrite');
      for await (const cursor of transaction.store.index('owner').iterate(this.owner)) {
        if ((cursor.value as Entry).operation.id === id) await cursor.delete();
      }
    });
  }

  private enqueue(task: (db: IDBPDatabase) => Promise<unknown>): void {
    // A browser that forbids storage still works, without surviving a reload while offline.
    this.tail = this.tail.then(async () => task(await open())).catch(() => undefined);
  }
}
