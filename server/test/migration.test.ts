import type { Page } from '@doodla/core';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { DataSource } from 'typeorm';
import { afterAll, describe, expect, it } from 'vitest';
import { LogsService } from '../src/live/logs.service.js';
import { databaseOptions } from '../src/storage/dataSource.js';
import { TABLES } from '../src/subjects.js';
import { strokeBy } from './helpers/live.js';
import type { TestServer } from './helpers/server.js';
import { startServer } from './helpers/server.js';
import { POSTGRES } from './helpers/testDatabase.js';

const data = mkdtempSync(join(tmpdir(), 'doodla-migration-'));
const PAGE = { title: '', width: 800, height: 600, removed: false };
const blank = { kind: 'blank', colour: '#ffffff', ruling: 'plain', spacing: 5 } as const;
const [LESSON, FIRST, SECOND] = ['lesson-1', 'sitting-1', 'sitting-2'];

/** A database as it was before logs were kept by page: pages of one class stood in the lesson's log. */
async function oldDatabase(): Promise<void> {
  const options = databaseOptions(data, TABLES);
  const migrations = (options.migrations as unknown[]).slice(0, 6) as never;
  const source = await new DataSource({ ...options, migrations }).initialize();
  await source.query("INSERT INTO teacher VALUES ('t', 'Ada', 'ada@school.example', 'x', 0)");
  await source.query(`INSERT INTO lesson VALUES ('${LESSON}', 't', 'Bridges', NULL, 0, 0, NULL)`);
  for (const id of [FIRST, SECOND])
    await source.query(
      `INSERT INTO sitting (id, lesson_id, title, code, page_id, pens_up, opened_at) VALUES (?, ?, 'x', ?, 'p1', 0, 0)`,
      [id, LESSON, id],
    );
  const pages = [
    { ...PAGE, id: 'p1', order: 'a0', surface: blank },
    { ...PAGE, id: 'p2', order: 'a1', surface: { kind: 'view', pictures: [] }, sitting: FIRST },
  ];
  const mark = strokeBy('t', 'p1', { id: 'm1', order: 'a0' });
  const write = (
    log: string,
    seq: number,
    id: string,
    changes: object[],
    inverse: object[],
    undoes: string | null = null,
  ) =>
    source.query('INSERT INTO operation VALUES (?, ?, ?, ?, ?, ?, ?, ?)', [
      log,
      seq,
      id,
      't',
      seq,
      undoes,
      JSON.stringify(changes),
      JSON.stringify(inverse),
    ]);
  const taken = pages.map(({ id }) => ({ do: 'removePage', page: id }));
  await write(
    LESSON,
    1,
    'o1',
    pages.map((page) => ({ do: 'addPage', page })),
    taken,
  );
  await write(FIRST, 1, 'o2', [{ do: 'add', mark }], [{ do: 'remove', mark: 'm1' }]);
  await write(
    FIRST,
    2,
    'o3',
    [{ do: 'patch', mark: 'm1', set: { order: 'a5' } }],
    [{ do: 'patch', mark: 'm1', set: { order: 'a0' } }],
  );
  await source.destroy();
}

describe.skipIf(POSTGRES)('a database of before', () => {
  let server: TestServer;
  afterAll(async () => {
    await server.stop();
    rmSync(data, { recursive: true });
  });

  it('keeps its marks and undo, and each class gets its pages', async () => {
    await oldDatabase();
    server = await startServer({}, data);
    const logs = server.app.get(LogsService);
    const pagesOf = async (log: string): Promise<Page[]> => [...(await logs.open(log)).pages.values()];
    expect((await pagesOf(LESSON)).map(({ id }) => id)).toEqual(['p1']);
    expect(await pagesOf(FIRST)).toEqual([
      { ...PAGE, id: 'p1', order: 'a0', surface: blank },
      { ...PAGE, id: 'p2', order: 'a1', surface: { kind: 'view', pictures: [] } },
    ]);
    expect((await pagesOf(SECOND)).map(({ id }) => id)).toEqual(['p1']);
    expect(await (await logs.open(FIRST)).allMarks()).toMatchObject([{ id: 'm1', order: 'a5' }]);
    expect((await logs.undoable(FIRST, 't')).map(({ id, pages }) => [id, pages])).toEqual([
      ['o2', ['p1']],
      ['o3', ['p1']],
    ]);
    await logs.append(FIRST, 't', { id: 'o4', undoes: 'o3', changes: [] });
    expect(await (await logs.open(FIRST)).allMarks()).toMatchObject([{ id: 'm1', order: 'a0' }]);
  });

  it('has displays and pads of before still, and takes companions', async () => {
    const old = mkdtempSync(join(tmpdir(), 'doodla-devices-'));
    const options = databaseOptions(old, TABLES);
    const before = (options.migrations as unknown[]).slice(0, 25) as never;
    const source = await new DataSource({ ...options, migrations: before }).initialize();
    await source.query('PRAGMA foreign_keys = OFF');
    await source.query("INSERT INTO device VALUES ('d', 's', 'pad', 'CODE', 1, 2, NULL)");
    await source.destroy();
    const now = await new DataSource(options).initialize();
    expect(await now.query('SELECT * FROM device')).toEqual([
      {
        id: 'd',
        sitting_id: 's',
        lesson_id: null,
        kind: 'pad',
        code: 'CODE',
        created_at: 1,
        entered_at: 2,
        removed_at: null,
      },
    ]);
    await now.query('PRAGMA foreign_keys = OFF');
    const insert = (id: string, sitting: string, lesson: string, kind: string) =>
      now.query(
        `INSERT INTO device VALUES ('${id}', ${sitting}, ${lesson}, '${kind}', 'CODE', 1, NULL, NULL)`,
      );
    await insert('c', "'s'", 'NULL', 'companion');
    await insert('l', 'NULL', "'l'", 'companion');
    await expect(insert('x', "'s'", 'NULL', 'phone')).rejects.toThrow('CHECK');
    await expect(insert('x', 'NULL', "'l'", 'display')).rejects.toThrow('CHECK');
    await expect(insert('x', 'NULL', 'NULL', 'companion')).rejects.toThrow('CHECK');
    await now.destroy();
    rmSync(old, { recursive: true });
  });
});
