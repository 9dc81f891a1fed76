import type { SignInReply } from '@doodla/core';
import { mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { describe, expect, it } from 'vitest';
import { SearchIndexService } from '../src/search/searchIndex.service.js';
import { copyToPostgres, digestOf } from '../src/storage/copyToPostgres.js';
import { TABLES } from '../src/subjects.js';
import { aClass } from './helpers/aClass.js';
import { LiveClient, strokeBy } from './helpers/live.js';
import { anotherSchool, operatorOf } from './helpers/schools.js';
import { ADA, Client, signedIn, startServer } from './helpers/server.js';
import { databaseFor, POSTGRES } from './helpers/testDatabase.js';

const SQLITE_ONLY = { DOODLA_DATABASE: 'sqlite:' };

describe('what is compared', () => {
  const rows = [
    { id: 'a', flag: 1, body: Buffer.from('one'), none: null },
    { id: 'b', flag: 0, body: Buffer.from('two'), none: null },
  ];

  it('is the same in any order, of rows and columns, and however yes and no are said', () => {
    const other = [
      { body: Buffer.from('two'), none: null, id: 'b', flag: false },
      { body: Buffer.from('one'), none: null, id: 'a', flag: true },
    ];
    expect(digestOf(other)).toEqual(digestOf(rows));
  });

  it('is another with one byte changed, or one row less', () => {
    expect(digestOf([{ ...rows[0]!, body: Buffer.from('onf') }, rows[1]!])).not.toEqual(digestOf(rows));
    expect(digestOf([{ ...rows[0]!, none: '' }, rows[1]!])).not.toEqual(digestOf(rows));
    expect(digestOf([rows[0]!])).not.toEqual(digestOf(rows));
  });
});

describe.skipIf(POSTGRES === undefined)('a school that moves to PostgreSQL', () => {
  it('has everything there: people, lessons in their folders, marks and undo, and goes on', async () => {
    const data = mkdtempSync(join(tmpdir(), 'doodla-moving-'));
    const before = await startServer(SQLITE_ONLY, data);
    const teacher = await signedIn(before);
    const { lesson, sitting, pages, live, me, code } = await aClass(before, teacher, 'Bridges');
    const [page] = pages;
    await live.submit(lesson, [{ do: 'add', mark: strokeBy(me, page!.id, { id: 'prepared' }) }]);
    await live.submit(sitting, [{ do: 'add', mark: strokeBy(me, page!.id, { id: 'first' }) }], 'step');
    await live.submit(sitting, [{ do: 'patch', mark: 'first', set: { order: 'a5' } }]);
    await new Client(before.url).send('POST', '/api/join', { code, name: 'Wren' });
    const folder = async (title: string, parent: string | null) =>
      (await teacher.send<{ id: string }>('POST', '/api/folders', { title, parent })).body.id;
    await folder('Inner', await folder('Outer', null));
    const folders = (await teacher.send('GET', '/api/folders')).body;
    const north = { name: 'Nia', email: ADA.email };
    await anotherSchool(before, await operatorOf(before), 'north', north);
    live.close();
    await before.stop();

    const url = (await databaseFor(data))!;
    const copied = await copyToPostgres(data, url, TABLES);
    const rowsOf = new Map(copied.map(({ table, rows }) => [table, rows]));
    expect(rowsOf.get('mark')).toBe(2);
    expect(rowsOf.get('lesson_folder')).toBe(2);
    expect(['tenant', 'teacher', 'operator'].map((table) => rowsOf.get(table))).toEqual([2, 2, 1]);
    await expect(copyToPostgres(data, url, TABLES)).rejects.toThrow('is not empty');

    const after = await startServer({}, data);
    const again = new Client(after.url);
    const signIn = { email: ADA.email.toUpperCase(), password: ADA.password };
    const { body: asked } = await again.send<SignInReply>('POST', '/api/sign-in', signIn);
    await again.send('POST', '/api/sign-in', { ...signIn, school: asked.schools[0]!.id });
    expect((await again.send('GET', '/api/folders')).body).toEqual(folders);
    const back = await LiveClient.connect(after.url, { cookie: again.cookie });
    const there = await back.snapshot(sitting);
    expect(there.marks).toMatchObject([{ id: 'first', order: 'a5' }]);
    expect((await back.open(sitting)).undoable.map(({ id }) => id)).toContain('step');
    // New rows are counted on from where the old ones were.
    expect((await back.submit(sitting, [{ do: 'add', mark: strokeBy(me, page!.id) }])).error).toBeUndefined();
    await aClass(after, again, 'Arches').then((made) => made.live.close());
    await after.app.get(SearchIndexService).settled();
    back.close();
    await after.remove();
  });
});
