import 'reflect-metadata';
import type { LessonSummary } from '@doodla/core';
import { createHash, randomUUID } from 'node:crypto';
import { existsSync, mkdtempSync, readdirSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { backUp, BackupError, restore } from '../src/backup/backup.js';
import { aStroke } from '../../core/test/helpers/marks.js';
import type { TestClass } from './helpers/aClass.js';
import { aClass } from './helpers/aClass.js';
import { LiveClient } from './helpers/live.js';
import { pdfWith } from './helpers/pdfs.js';
import type { TestServer } from './helpers/server.js';
import { Client, signedIn, startServer } from './helpers/server.js';
import { POSTGRES } from './helpers/testDatabase.js';

let server: TestServer;
let teacher: Client;
let at: TestClass;
let shelf: string;

beforeEach(async () => {
  server = await startServer();
  teacher = await signedIn(server);
  at = await aClass(server, teacher);
  shelf = mkdtempSync(join(tmpdir(), 'doodla-backups-'));
});
afterEach(async () => {
  await server.remove();
  rmSync(shelf, { recursive: true, force: true });
});

const write = async () => {
  const mark = aStroke({ id: randomUUID(), page: at.pages[0]!.id, author: at.me });
  expect((await at.live.submit(at.sitting, [{ do: 'add', mark }])).error).toBeUndefined();
  return mark.id;
};

/** What a server on a data folder has: ids of marks of the class, titles, and each document by its hash. */
async function contents(data: string) {
  const other = await startServer({}, data);
  const client = new Client(other.url);
  client.cookie = teacher.cookie;
  const live = await LiveClient.connect(other.url, { cookie: teacher.cookie });
  await live.open(at.sitting);
  const { marks, pages } = await live.snapshot(at.sitting);
  const { body: lessons } = await client.send<LessonSummary[]>('GET', '/api/lessons');
  const { surface } = pages[0]!;
  const file = await fetch(
    `${other.url}/api/materials/${'material' in surface ? surface.material : ''}/file`,
    {
      headers: { cookie: teacher.cookie },
    },
  );
  live.close();
  await other.stop();
  return {
    marks: marks.map(({ id }) => id).sort(),
    titles: lessons.map(({ title }) => title).sort(),
    document: createHash('sha256')
      .update(new Uint8Array(await file.arrayBuffer()))
      .digest('hex'),
  };
}

describe.skipIf(POSTGRES)('a backup', () => {
  it('made while a class writes has all that was acknowledged before, and is a whole school again', async () => {
    const before = [await write(), await write()];
    let writing = true;
    const during = (async () => {
      while (writing) await write();
    })();
    const { path, files, missing } = await backUp(server.data, shelf);
    writing = false;
    await during;
    expect(missing).toEqual([]);
    expect(files).toBeGreaterThan(0);
    expect(readdirSync(shelf)).toEqual([path.slice(shelf.length + 1)]);
    at.live.close();

    const elsewhere = join(shelf, 'elsewhere');
    expect(await restore(path, elsewhere)).toEqual({ files, before: undefined });
    const there = await contents(elsewhere);
    expect(there.marks).toEqual(expect.arrayContaining([...before].sort()));
    await server.stop();
    const here = await contents(server.data);
    expect(there.titles).toEqual(here.titles);
    expect(there.document).toBe(here.document);
    expect(here.marks).toEqual(expect.arrayContaining(there.marks));
  });

  it('takes the place of what was there, which is kept beside it, and only while no server runs', async () => {
    const first = await write();
    const { path } = await backUp(server.data, shelf);
    const second = await write();
    at.live.close();
    await expect(restore(path, server.data)).rejects.toThrow(/runs on/);
    await server.stop();
    const { before } = await restore(path, server.data);
    expect((await contents(server.data)).marks).toEqual([first]);
    expect((await contents(before!)).marks).toEqual([first, second].sort());
    rmSync(before!, { recursive: true });
  });

  it('that is not whole is refused, and nothing is changed by it', async () => {
    const { path } = await backUp(server.data, shelf);
    await teacher.upload('later.pdf', await pdfWith([111, 99]));
    const [folder] = readdirSync(join(path, 'files'));
    const [file] = readdirSync(join(path, 'files', folder!));
    at.live.close();
    await server.stop();
    writeFileSync(join(path, 'files', folder!, file!), 'something else');
    await expect(restore(path, server.data)).rejects.toThrow(/not whole: 1 of its files/);
    expect(existsSync(`${server.data}.unfinished`)).toBe(false);
    expect((await contents(server.data)).titles).toContain('later');
    await expect(restore(shelf, server.data)).rejects.toThrow(BackupError);
    writeFileSync(join(path, 'doodla.sqlite'), 'no database');
    await expect(restore(path, server.data)).rejects.toThrow(/damaged/);
    await expect(backUp(join(shelf, 'nowhere'), shelf)).rejects.toThrow(/no database/);
  });

  it('names files that the data folder has lost', async () => {
    const files = join(server.data, 'files');
    const [folder] = readdirSync(files);
    const [lost] = readdirSync(join(files, folder!));
    rmSync(join(files, folder!, lost!));
    expect((await backUp(server.data, shelf)).missing).toEqual([lost]);
    at.live.close();
  });
});
