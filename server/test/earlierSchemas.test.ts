import type { Page } from '@doodla/core';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { DataSource } from 'typeorm';
import { describe, expect, it } from 'vitest';
import { LogsService } from '../src/live/logs.service.js';
import { FIRST_SCHOOL } from '../src/schools/school.entity.js';
import { SchoolsService } from '../src/schools/schools.service.js';
import { databaseOptions } from '../src/storage/dataSource.js';
import { TABLES } from '../src/subjects.js';
import { strokeBy } from './helpers/live.js';
import { startServer } from './helpers/server.js';
import { POSTGRES } from './helpers/testDatabase.js';

type Row = Record<string, string | number | null>;

/** The schema since which logs are kept by page. */
const BY_PAGE = 7;
const LATEST = (databaseOptions(tmpdir(), TABLES).migrations as unknown[]).length;
const page: Page = {
  id: 'p1',
  order: 'a0',
  title: 'Arches',
  width: 800,
  height: 600,
  surface: { kind: 'blank', colour: '#ffffff', ruling: 'plain', spacing: 5 },
  removed: false,
};

/** What a school had written by the first version; later columns are left to their defaults. */
const ROWS: [table: string, row: Row][] = [
  ['teacher', { id: 't', name: 'Ada', email: 'ada@school.example', password_hash: 'x', created_at: 5 }],
  ['lesson', { id: 'l', teacher_id: 't', title: 'Bridges', created_at: 6, used_at: 7 }],
  [
    'material',
    {
      id: 'm',
      teacher_id: 't',
      kind: 'pdf',
      name: 'arch.pdf',
      sha256: 'f'.repeat(64),
      bytes: 9,
      page_count: 3,
      created_at: 8,
    },
  ],
  ['lesson_material', { lesson_id: 'l', material_id: 'm' }],
  [
    'sitting',
    {
      id: 's',
      lesson_id: 'l',
      title: 'Tuesday',
      code: 'FGHJ34',
      page_id: 'p1',
      pens_up: 1,
      opened_at: 10,
      ended_at: 11,
    },
  ],
  ['student', { id: 'w', sitting_id: 's', name: 'Wren', colour: '#0072b2', joined_at: 12 }],
];

const insert = (source: DataSource, table: string, row: Row) =>
  source.query(
    `INSERT INTO ${table} (${Object.keys(row).join()}) VALUES (${Object.keys(row)
      .map(() => '?')
      .join()})`,
    Object.values(row),
  );

/** A database as the version with so many migrations left it. */
async function databaseOf(version: number, data: string): Promise<void> {
  const options = databaseOptions(data, TABLES);
  const migrations = (options.migrations as unknown[]).slice(0, version) as never;
  const source = await new DataSource({ ...options, migrations }).initialize();
  for (const [table, row] of ROWS) await insert(source, table, row);
  if (version < BY_PAGE) {
    const write = (log: string, id: string, changes: object[], inverse: object[]) =>
      insert(source, 'operation', {
        log_id: log,
        seq: 1,
        id,
        author: 't',
        at: 13,
        changes: JSON.stringify(changes),
        inverse: JSON.stringify(inverse),
      });
    const mark = strokeBy('t', 'p1', { id: 'm1', order: 'a0' });
    await write('l', 'o1', [{ do: 'addPage', page }], [{ do: 'removePage', page: 'p1' }]);
    await write('s', 'o2', [{ do: 'add', mark }], [{ do: 'remove', mark: 'm1' }]);
  }
  await source.destroy();
}

describe.skipIf(POSTGRES)('a data folder', () => {
  it.each(Array.from({ length: LATEST - 1 }, (_, i) => i + 1))(
    'of schema %i opens with everything in it',
    async (version) => {
      const data = mkdtempSync(join(tmpdir(), 'doodla-schema-'));
      await databaseOf(version, data);
      const server = await startServer({}, data);
      try {
        const source = server.app.get(DataSource);
        for (const [table, row] of ROWS)
          expect(await source.query(`SELECT * FROM ${table}`)).toMatchObject([row]);
        expect(await source.query('PRAGMA foreign_key_check')).toEqual([]);
        expect(await source.query('PRAGMA integrity_check')).toEqual([{ integrity_check: 'ok' }]);
        if (version >= BY_PAGE) return;
        const logs = server.app.get(LogsService);
        expect([...(await logs.open('l')).pages.values()]).toEqual([page]);
        expect([...(await logs.open('s')).pages.values()]).toEqual([page]);
        expect(await (await logs.open('s')).allMarks()).toMatchObject([{ id: 'm1' }]);
      } finally {
        await server.stop();
        rmSync(data, { recursive: true });
      }
    },
  );
});

describe.skipIf(POSTGRES)('a school that is one of several from now on', () => {
  const ONE_SCHOOL = 28;

  it('keeps its limits, its teachers and the ways in which they come', async () => {
    const data = mkdtempSync(join(tmpdir(), 'doodla-schema-'));
    await databaseOf(ONE_SCHOOL, data);
    const source = await new DataSource({
      ...databaseOptions(data, TABLES),
      migrationsRun: false,
    }).initialize();
    await insert(source, 'school_limit', { name: 'retentionDays', value: 30 });
    await insert(source, 'school_limit', { name: 'tellOfRecording', value: 1 });
    await source.query("UPDATE teacher SET admin = 1, subject = 'issuer ada'");
    const invited = { token_hash: 'h', name: 'Bea', email: 'bea@school.example', expires_at: 2 ** 50 };
    await insert(source, 'invitation', invited);
    await source.destroy();
    const server = await startServer({}, data);
    try {
      const all = <T>(sql: string) => server.app.get(DataSource).query<T[]>(sql);
      const [teacher] = await all<Row>('SELECT * FROM teacher');
      expect(teacher).toMatchObject({ admin: 1, subject: 'issuer ada', school_id: FIRST_SCHOOL });
      expect(await all('SELECT school_id, admin FROM invitation')).toEqual([
        { school_id: FIRST_SCHOOL, admin: 0 },
      ]);
      const limits = server.app.get(SchoolsService).limitsOf(FIRST_SCHOOL);
      expect(limits).toMatchObject({ retentionDays: 30, tellOfRecording: true, maxPages: 500 });
    } finally {
      await server.stop();
      rmSync(data, { recursive: true });
    }
  });
});
