import type { LessonDetail } from '@doodla/core';
import { createCanvas } from '@napi-rs/canvas';
import { existsSync, readdirSync, utimesSync } from 'node:fs';
import { join } from 'node:path';
import { tablesOf } from './helpers/testDatabase.js';
import { Database } from '../src/storage/database.js';
import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest';
import { KEPT_MS, PurgeService, TRASH_MS } from '../src/lessons/purge.service.js';
import { FileStore } from '../src/storage/fileStore.js';
import { SearchIndexService } from '../src/search/searchIndex.service.js';
import { aClass } from './helpers/aClass.js';
import { strokeBy } from './helpers/live.js';
import { pdfWith } from './helpers/pdfs.js';
import type { TestServer } from './helpers/server.js';
import { Client, signedIn, startServer } from './helpers/server.js';

const MINUTE = 60_000;
let server: TestServer;
let teacher: Client;

beforeAll(async () => {
  server = await startServer();
  teacher = await signedIn(server);
});
afterAll(() => server.remove());

const query = <T>(sql: string, values: unknown[] = []) => server.app.get(Database).all<T>(sql, values);

/** Clears away as if it were so much later. */
const purgeIn = (ms: number) => server.app.get(PurgeService).purge(Date.now() + ms);

/** How many rows each table has; what is yet to be let go of is none of a lesson's. */
async function rows(): Promise<Record<string, number>> {
  const counts: Record<string, number> = {};
  for (const name of (await tablesOf(server)).filter(
    (one) => !['gone_file', 'cleared', 'school_cleared'].includes(one),
  ))
    counts[name] = (await query<{ n: number }>(`SELECT count(*) AS n FROM "${name}"`))[0]!.n;
  return counts;
}

function files(): string[] {
  const root = join(server.data, 'files');
  return existsSync(root) ? readdirSync(root).flatMap((folder) => readdirSync(join(root, folder))) : [];
}

async function putPicture(lesson: string, colour: string): Promise<void> {
  const canvas = createCanvas(8, 6);
  const ctx = canvas.getContext('2d');
  ctx.fillStyle = colour;
  ctx.fillRect(0, 0, 8, 6);
  const form = new FormData();
  form.append('file', new Blob([new Uint8Array(canvas.toBuffer('image/png'))]), 'dot.png');
  expect((await teacher.send('POST', `/api/lessons/${lesson}/pictures`, form)).status).toBe(201);
}

const drop = (lesson: string) => teacher.send('DELETE', `/api/lessons/${lesson}`);
const shaOf = async (lesson: string) =>
  (
    await query<{ sha256: string }>(
      'SELECT sha256 FROM material JOIN lesson_material ON material_id = id WHERE lesson_id = ?',
      [lesson],
    )
  )[0]!.sha256;

/** Until whatever was deleted is gone, with its files. */
const LONG = TRASH_MS + 2 * KEPT_MS;

beforeEach(async () => {
  await purgeIn(LONG);
});

describe('a deleted lesson', () => {
  it('is gone after 30 days with all that was its own, down to the last row and file', async () => {
    const before = { rows: await rows(), files: files() };
    const { lesson, sitting, pages, live, me, code } = await aClass(server, teacher);
    await new Client(server.url).send('POST', '/api/join', { code, name: 'Wren' });
    await live.submit(lesson, [{ do: 'add', mark: strokeBy(me, pages[0]!.id) }]);
    await live.submit(sitting, [{ do: 'add', mark: strokeBy(me, pages[1]!.id) }]);
    await putPicture(lesson.id, '#aa0000');
    await teacher.send('POST', `/api/sittings/${sitting.id}/devices`, { kind: 'pad' });
    live.close();
    await server.app.get(SearchIndexService).settled();
    expect(await rows()).not.toEqual(before.rows);
    expect(files().length).toBeGreaterThan(before.files.length);

    await drop(lesson.id);
    await purgeIn(TRASH_MS - MINUTE);
    expect(await shaOf(lesson.id)).toBeDefined();
    await purgeIn(TRASH_MS + MINUTE);
    expect(await rows()).toEqual(before.rows);
    await purgeIn(TRASH_MS + KEPT_MS + MINUTE);
    expect(files()).toEqual(before.files);
  });

  it('leaves a document whole that another lesson has too', async () => {
    const pdf = await pdfWith([120, 80]);
    const [first, second] = [await teacher.upload('one.pdf', pdf), await teacher.upload('two.pdf', pdf)];
    const sha256 = await shaOf(first.lesson!.id);
    expect(await shaOf(second.lesson!.id)).toBe(sha256);
    await drop(first.lesson!.id);
    await purgeIn(LONG);
    expect(files()).toContain(sha256);
    await drop(second.lesson!.id);
    await purgeIn(LONG);
    expect(files()).not.toContain(sha256);
  });

  it('that is brought back in time keeps everything', async () => {
    const { lesson } = await teacher.upload('back.pdf', await pdfWith([70, 90]));
    await drop(lesson!.id);
    expect((await teacher.send('POST', `/api/lessons/${lesson!.id}/restore`)).status).toBe(204);
    await purgeIn(LONG);
    expect(files()).toContain(await shaOf(lesson!.id));
    await drop(lesson!.id);
  });
});

describe('a file that comes in again', () => {
  const bytes = Buffer.from('comes and goes');

  it('just as it would be cleared away, for something that does not name it yet, stays', async () => {
    const store = server.app.get(FileStore);
    const sha256 = await store.put(bytes);
    const longAgo = new Date(Date.now() - 3 * KEPT_MS);
    utimesSync(await store.local(sha256), longAgo, longAgo);
    await query('INSERT INTO gone_file VALUES (?, ?) ON CONFLICT (sha256) DO UPDATE SET at = excluded.at', [
      sha256,
      longAgo.getTime(),
    ]);
    await store.put(bytes);
    await purgeIn(0);
    expect(files()).toContain(sha256);
    // Nothing came to name it: a day later it goes.
    await purgeIn(KEPT_MS + MINUTE);
    expect(files()).not.toContain(sha256);
  });

  it('after it was cleared away is there again', async () => {
    const store = server.app.get(FileStore);
    const sha256 = await store.put(bytes);
    expect(await store.remove(sha256, Date.now() + MINUTE)).toBe(true);
    expect(await store.remove(sha256, Date.now() + MINUTE)).toBe(true);
    expect(await store.put(bytes)).toBe(sha256);
    expect(files()).toContain(sha256);
  });
});

describe('a class that has ended', () => {
  const DAYS = 24 * 3600 * 1000;
  const end = (id: string) => teacher.send('POST', `/api/sittings/${id}/end`, { drop: false });
  const logsOf = (id: string) => query<object>('SELECT id FROM log WHERE id = ?', [id]);
  /** Drops what is due, and a little more than a day later clears it away. */
  const clearIn = async (ms: number) => {
    await purgeIn(ms);
    await purgeIn(ms + KEPT_MS + MINUTE);
  };

  it('is cleared away 180 days later with everything of its students, and it is said', async () => {
    const { sitting, lesson, pages, live, me, code } = await aClass(server, teacher);
    await new Client(server.url).send('POST', '/api/join', { code, name: 'Wren' });
    await live.submit(sitting, [{ do: 'add', mark: strokeBy(me, pages[0]!.id) }]);
    live.close();
    await end(sitting.id);
    await clearIn(178 * DAYS);
    expect(await logsOf(sitting.id)).toHaveLength(1);
    await clearIn(180 * DAYS + MINUTE);
    expect(await logsOf(sitting.id)).toHaveLength(0);
    expect(await query('SELECT id FROM student WHERE sitting_id = ?', [sitting.id])).toEqual([]);
    // The lesson itself stays.
    expect((await teacher.send('GET', `/api/lessons/${lesson.id}`)).status).toBe(200);
    const [said] = await server.app.get(PurgeService).cleared(1);
    expect(said).toMatchObject({ classes: 1, lessons: 0 });
  });

  it('is kept longer where its teacher asks for it, and says until when', async () => {
    const { sitting, lesson, live } = await aClass(server, teacher);
    live.close();
    await end(sitting.id);
    const shown = async () =>
      (await teacher.send<LessonDetail>('GET', `/api/lessons/${lesson.id}`)).body.sittings[0]!;
    const { goneAt, endedAt } = await shown();
    expect(goneAt! - endedAt!).toBe(180 * DAYS);
    const keep = (days: number, who = teacher) =>
      who.send<{ goneAt: number }>('POST', `/api/sittings/${sitting.id}/keeping`, { days });
    expect((await keep(0)).status).toBe(400);
    expect((await keep(365, new Client(server.url))).status).toBe(401);
    expect((await keep(365)).body.goneAt).toBe(goneAt! + 365 * DAYS);
    expect((await shown()).goneAt).toBe(goneAt! + 365 * DAYS);
    await clearIn(540 * DAYS);
    expect(await logsOf(sitting.id)).toHaveLength(1);
    await clearIn(545 * DAYS + MINUTE);
    expect(await logsOf(sitting.id)).toHaveLength(0);
  });

  it('that nobody ended is cleared away so long after it was last written in', async () => {
    const { sitting, pages, live, me } = await aClass(server, teacher);
    await live.submit(sitting, [{ do: 'add', mark: strokeBy(me, pages[0]!.id) }]);
    live.close();
    await clearIn(178 * DAYS);
    expect(await logsOf(sitting.id)).toHaveLength(1);
    await clearIn(181 * DAYS);
    expect(await logsOf(sitting.id)).toHaveLength(0);
  });
});
