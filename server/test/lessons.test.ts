import { createHash } from 'node:crypto';
import { existsSync } from 'node:fs';
import { readdir } from 'node:fs/promises';
import { join } from 'node:path';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { PurgeService, TRASH_MS } from '../src/lessons/purge.service.js';
import { LogsService } from '../src/live/logs.service.js';
import { Database } from '../src/storage/database.js';
import { encrypted, pdfWith } from './helpers/pdfs.js';
import type { TestServer } from './helpers/server.js';
import { Client, signedIn, startServer } from './helpers/server.js';

let server: TestServer;
let teacher: Client;
beforeAll(async () => {
  server = await startServer({ DOODLA_MAX_UPLOAD_MB: '1', DOODLA_MAX_PAGES: '5' });
  teacher = await signedIn(server);
});
afterAll(() => server.remove());

const titles = async () =>
  (await teacher.send<{ title: string }[]>('GET', '/api/lessons')).body.map(({ title }) => title);

describe('a lesson without a document', () => {
  it('begins on one blank page, wide and plain or as it is wished', async () => {
    const plain = await teacher.send<{ id: string; title: string }>('POST', '/api/lessons/blank', {
      sheet: null,
    });
    expect(plain).toMatchObject({ status: 201, body: { title: 'Untitled lesson' } });
    const sheet = {
      width: 600,
      height: 800,
      surface: { kind: 'blank', colour: '#fdf3c8', ruling: 'music', spacing: 3, boundless: true },
    };
    const wished = await teacher.send<{ id: string }>('POST', '/api/lessons/blank', { sheet });
    const logs = server.app.get(LogsService);
    const pageOf = async (lesson: string) => [...(await logs.open(lesson)).pages.values()];
    expect(await pageOf(plain.body.id)).toMatchObject([
      { width: 1280, surface: { kind: 'blank', ruling: 'plain' } },
    ]);
    expect(await pageOf(wished.body.id)).toMatchObject([sheet]);
  });

  it.each([
    ['no sheet', {}],
    [
      'a document’s page',
      { sheet: { width: 9, height: 9, surface: { kind: 'pdf', material: 'm', index: 0 } } },
    ],
    ['a size that is none', { sheet: { width: -1, height: 9, surface: { kind: 'blank' } } }],
  ])('is refused with %s', async (_, body) => {
    const before = (await titles()).length;
    expect((await teacher.send('POST', '/api/lessons/blank', body)).status).toBe(400);
    expect(await titles()).toHaveLength(before);
  });
});

describe('bringing in a PDF', () => {
  it('makes a lesson named after the file and stores the file by its SHA-256', async () => {
    const pdf = await pdfWith([300, 200], [200, 300]);
    const { lesson } = await teacher.upload('load_and-span.pdf', pdf);
    expect(lesson!.title).toBe('load and span');
    const sha256 = createHash('sha256').update(pdf).digest('hex');
    expect(existsSync(join(server.data, 'files', sha256.slice(0, 2), sha256))).toBe(true);
    // Its picture is drawn once its teacher looks at the list.
    await titles();
    await expect
      .poll(async () => (await teacher.send('GET', `/api/lessons/${lesson!.id}/cover`)).status)
      .toBe(200);
  });

  it('takes in a PDF that is only protected against changes', async () => {
    expect(
      (await teacher.upload('owner.pdf', encrypted(await pdfWith([300, 200]), '', 'owner'))).lesson,
    ).toBeDefined();
  });

  it.each([
    [
      'a password',
      async () => encrypted(await pdfWith([300, 200]), 'secret', 'secret'),
      'password',
      'save a copy without a password',
    ],
    ['nothing in it', () => new Uint8Array(), 'empty', 'empty'],
    [
      'text in it',
      () => Buffer.from('Dear class, this is no PDF.'),
      'unknown-document',
      'cannot be taken in',
    ],
    [
      'damage',
      () => Buffer.concat([Buffer.from('%PDF-1.7\n'), Buffer.alloc(500, 'x')]),
      'damaged',
      'damaged',
    ],
    [
      'too many pages',
      () => pdfWith(...Array.from({ length: 6 }, (): [number, number] => [9, 9])),
      'too-many-pages',
      '6 pages, and 5 can be brought in',
    ],
    ['too many bytes', () => Buffer.alloc(1_100_000, '%PDF-'), 'file-too-large', 'larger than 1 MB'],
  ])('refuses a file with %s and says what to do', async (_, make, code, hint) => {
    const before = await titles();
    const refused = await teacher.upload('file.pdf', await make());
    expect(refused.code).toBe(code);
    expect(refused.message).toContain(hint);
    expect(await titles()).toEqual(before);
    await expect.poll(() => readdir(join(server.data, 'incoming'))).toEqual([]);
  });

  it('refuses a request without a file', async () => {
    const { status, body } = await teacher.send('POST', '/api/lessons', new FormData());
    expect([status, body.code]).toEqual([400, 'no-file']);
  });

  it('keeps nothing of an upload that is cancelled', async () => {
    const before = await titles();
    const form = new FormData();
    form.append('file', new Blob([(await pdfWith([10, 10])) as Uint8Array<ArrayBuffer>]), 'cancelled.pdf');
    const abort = new AbortController();
    const sending = fetch(`${server.url}/api/lessons`, {
      method: 'POST',
      body: form,
      headers: { cookie: teacher.cookie },
      signal: abort.signal,
    });
    abort.abort();
    await expect(sending).rejects.toThrow();
    await expect.poll(() => readdir(join(server.data, 'incoming'))).toEqual([]);
    expect(await titles()).toEqual(before);
  });
});

describe('a lesson that was deleted', () => {
  it('is gone for good after 30 days: classes, marks, document and file', async () => {
    const pdf = await pdfWith([77, 77]);
    const { lesson } = await teacher.upload('gone.pdf', pdf);
    const sitting = await teacher.send<{ id: string }>('POST', `/api/lessons/${lesson!.id}/sittings`, {
      title: 'Gone',
    });
    const sha256 = createHash('sha256').update(pdf).digest('hex');
    const path = join(server.data, 'files', sha256.slice(0, 2), sha256);
    await teacher.send('DELETE', `/api/lessons/${lesson!.id}`);
    const purge = server.app.get(PurgeService);
    await purge.purge();
    expect(existsSync(path)).toBe(true);
    await purge.purge(Date.now() + TRASH_MS + 1000);
    expect(existsSync(path)).toBe(false);
    const rows = await server.app
      .get(Database)
      .all<{ n: number }>('SELECT count(*) AS n FROM log WHERE id IN (?, ?)', [lesson!.id, sitting.body.id]);
    expect(rows[0]!.n).toBe(0);
    expect((await teacher.send('POST', `/api/lessons/${lesson!.id}/restore`)).status).toBe(404);
    expect(await titles()).toContain('load and span');
  });
});

describe('a lesson', () => {
  it('can be renamed, deleted and brought back', async () => {
    const { lesson } = await teacher.upload('first name.pdf', await pdfWith([10, 10]));
    const path = `/api/lessons/${lesson!.id}`;
    expect((await teacher.send('PATCH', path, { title: ' Second name ' })).status).toBe(204);
    expect(await titles()).toContain('Second name');
    expect((await teacher.send('PATCH', path, { title: ' ' })).body.message).toContain('title');
    await teacher.send('DELETE', path);
    expect(await titles()).not.toContain('Second name');
    expect((await teacher.send('GET', path)).status).toBe(404);
    expect((await teacher.send('POST', `${path}/restore`)).status).toBe(204);
    expect(await titles()).toContain('Second name');
  });

  it('is for nobody who is not signed in', async () => {
    const { lesson } = await teacher.upload('private.pdf', await pdfWith([10, 10]));
    const stranger = new Client(server.url);
    for (const [method, path] of [
      ['GET', '/api/lessons'],
      ['GET', `/api/lessons/${lesson!.id}`],
      ['DELETE', `/api/lessons/${lesson!.id}`],
      ['GET', `/api/lessons/${lesson!.id}/cover`],
      ['POST', `/api/lessons/${lesson!.id}/sittings`],
    ] as const) {
      expect((await stranger.send(method, path)).status).toBe(401);
    }
  });
});
