import 'reflect-metadata';
import type Database from 'better-sqlite3';
import { randomUUID } from 'node:crypto';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { LogDatabase } from '../src/storage/logDatabase.js';
import { aStroke } from '../../core/test/helpers/marks.js';
import type { TestClass } from './helpers/aClass.js';
import { aClass } from './helpers/aClass.js';
import type { TestServer } from './helpers/server.js';
import { signedIn, startServer } from './helpers/server.js';
import { POSTGRES } from './helpers/testDatabase.js';

let server: TestServer;
let at: TestClass;

beforeAll(async () => {
  server = await startServer();
  at = await aClass(server, await signedIn(server));
});
afterAll(async () => {
  at.live.close();
  await server.remove();
});

/** The database of the logs may grow by so many pages only: SQLite then fails as on a full disk (SQLITE_FULL). */
function roomFor(pages: number): void {
  const { database } = server.app.get<unknown>(LogDatabase) as { database: Database.Database };
  const now = database.pragma('page_count', { simple: true }) as number;
  database.pragma(`max_page_count = ${now + pages}`);
}

const long = (page: string) =>
  aStroke({
    id: randomUUID(),
    page,
    author: at.me,
    points: Array.from({ length: 4 * 1500 }, (_, i) =>
      i % 4 < 2 ? Math.round(Math.sin(i) * 1e5) / 100 : 0.5,
    ),
  });

describe.skipIf(POSTGRES)('a full disk', () => {
  it('is said, takes in whole operations or nothing of them, and lets all in once there is room', async () => {
    const page = at.pages[0]!.id;
    const kept: string[] = [];
    const missed: ReturnType<typeof long>[] = [];
    roomFor(8);
    for (let i = 0; i < 12; i++) {
      const marks = [long(page), long(page)];
      const { error } = await at.live.submit(
        at.sitting,
        marks.map((mark) => ({ do: 'add', mark })),
      );
      if (!error) kept.push(...marks.map(({ id }) => id));
      else {
        expect(error).toMatchObject({ code: 'storage-full' });
        expect(error.message).toContain('What you write is kept here');
        missed.push(...marks);
      }
    }
    expect(missed.length).toBeGreaterThan(0);
    const ids = async () => (await at.live.snapshot(at.sitting)).marks.map(({ id }) => id).sort();
    expect(await ids()).toEqual([...kept].sort());
    roomFor(10_000);
    for (const mark of missed)
      expect((await at.live.submit(at.sitting, [{ do: 'add', mark }])).error).toBeUndefined();
    expect(await ids()).toEqual([...kept, ...missed.map(({ id }) => id)].sort());
  });
});
