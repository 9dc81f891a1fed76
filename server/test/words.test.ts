import { PDFDocument } from '@cantoo/pdf-lib';
import { execFileSync } from 'node:child_process';
import { mkdtempSync, readdirSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { DataSource } from 'typeorm';
import { afterAll, beforeAll, describe, expect, it, vi } from 'vitest';
import { PurgeService } from '../src/lessons/purge.service.js';
import type { ReadWord } from '../src/words/readingTask.js';
import { aClass } from './helpers/aClass.js';
import type { TestServer } from './helpers/server.js';
import { Client, signedIn, startServer } from './helpers/server.js';

const WORKSHEET = join(import.meta.dirname, '../../demo/material/bridges-worksheet.pdf');
/** The part of the page that is scanned: 700 of 1,754 pixels at 150 to the inch. */
const UPPER = ['-x', '0', '-y', '0', '-W', '1240', '-H', '700'];
const PART = 700 / 1754;
const folder = mkdtempSync(join(tmpdir(), 'doodla-words-'));
// Who reads stands back behind everything else that the machine does.
vi.setConfig({ testTimeout: 180_000 });
let server: TestServer;
let teacher: Client;
/** The upper part of the worksheet as a scanner gives it, and as a PDF of that picture on its second page. */
let scan: Buffer;
let scanned: Uint8Array;

beforeAll(async () => {
  server = await startServer();
  teacher = await signedIn(server);
  execFileSync('pdftoppm', [...UPPER, '-r', '150', '-l', '1', '-jpeg', WORKSHEET, join(folder, 'scan')]);
  scan = readFileSync(join(folder, readdirSync(folder)[0]!));
  const doc = await PDFDocument.create();
  doc.addPage([595, 336]);
  doc.addPage([595, 336]).drawImage(await doc.embedJpg(scan), { x: 0, y: 0, width: 595, height: 336 });
  scanned = await doc.save();
});
afterAll(async () => {
  await server.remove();
  rmSync(folder, { recursive: true });
});

/** Words and their places as poppler finds them in the original, as parts of the page. */
function original(): ReadWord[] {
  const out = execFileSync('pdftotext', ['-bbox', '-l', '1', WORKSHEET, '-'], { encoding: 'utf8' });
  const [, width, height] = /<page width="([\d.]+)" height="([\d.]+)"/.exec(out)!.map(Number);
  return [...out.matchAll(/xMin="([\d.]+)" yMin="([\d.]+)" xMax="([\d.]+)" yMax="([\d.]+)">(.*?)</g)].map(
    ([, x0, y0, x1, y1, text]) => ({
      text: text!,
      x: Number(x0) / width!,
      y: Number(y0) / height! / PART,
      width: (Number(x1) - Number(x0)) / width!,
      height: (Number(y1) - Number(y0)) / height! / PART,
    }),
  );
}

/** Most words of the original are there, where they are; what is drawn beside them may be taken for some more. */
function expectToBeRead(words: readonly ReadWord[]): void {
  const all = original().filter(({ text, y }) => /^\p{L}{3,}$/u.test(text) && y < 1);
  expect(all.length).toBeGreaterThan(10);
  const found = all.filter(({ text, x, y, width, height }) =>
    words.some(
      (word) =>
        word.text === text &&
        Math.abs(word.x + word.width / 2 - x - width / 2) < 0.01 &&
        Math.abs(word.y + word.height / 2 - y - height / 2) < 0.01,
    ),
  );
  expect(found.length / all.length).toBeGreaterThan(0.9);
}

/** Has words read. Returns the lines of the answer. */
async function read(path: string, language = 'eng', by = teacher): Promise<Record<string, never>[]> {
  const { body } = await by.send<unknown>('POST', path, { language });
  if (typeof body !== 'string') return [body as Record<string, never>];
  return body
    .trim()
    .split('\n')
    .map((line) => JSON.parse(line) as Record<string, never>);
}

async function uploaded(bytes: Uint8Array): Promise<{ lesson: string; material: string }> {
  const { lesson, material } = (await teacher.upload('scan.pdf', bytes)) as unknown as {
    lesson: { id: string };
    material: string;
  };
  return { lesson: lesson.id, material };
}

describe('the words of a scanned page', () => {
  it('are read when asked for, where they are, and remembered with the file', async () => {
    const { material } = await uploaded(scanned);
    const path = `/api/materials/${material}/words/1`;
    expect((await teacher.send('GET', path)).body).toEqual({ words: null });
    const lines = await read(path);
    const { words } = lines.at(-1) as unknown as { words: ReadWord[] };
    expectToBeRead(words);
    expect(lines.some((line) => 'part' in line)).toBe(true);
    expect((await teacher.send('GET', path)).body).toEqual({ words });
    // The same file brought in again has them; its first page has none.
    const again = await uploaded(scanned);
    expect((await teacher.send('GET', `/api/materials/${again.material}/words/1`)).body).toEqual({ words });
    expect((await read(`/api/materials/${material}/words/0`)).at(-1)).toEqual({ words: [] });
  });

  it('of a picture are read too, in another language', async () => {
    const { lesson } = await uploaded(scanned);
    const form = new FormData();
    form.append('file', new Blob([scan as Uint8Array<ArrayBuffer>], { type: 'image/jpeg' }), 'scan.jpg');
    const { body } = await teacher.send<{ id: string }>('POST', `/api/lessons/${lesson}/pictures`, form);
    const lines = await read(`/api/pictures/${body.id}/words`, 'deu');
    const { words } = lines.at(-1) as unknown as { words: ReadWord[] };
    expect(words.map(({ text }) => text)).toContain('Bridges');
  });

  it('are there for a class that has the page, and the teacher’s alone to have read', async () => {
    const room = await aClass(server, teacher);
    const student = new Client(server.url);
    const joined = await student.send<{ token: string }>('POST', '/api/join', {
      code: room.code,
      name: 'Wren',
    });
    const headers = { Authorization: `Bearer ${joined.body.token}` };
    const page = room.pages[0]!.surface as { material: string };
    const own = `/api/materials/${page.material}/words/0`;
    expect((await student.send('GET', own, undefined, headers)).body).toEqual({ words: null });
    expect((await student.send('POST', own, { language: 'eng' }, headers)).status).toBe(403);
    const { material } = await uploaded(scanned);
    const others = `/api/materials/${material}/words/1`;
    expect((await student.send('GET', others, undefined, headers)).status).toBe(404);
    expect((await new Client(server.url).send('GET', own)).status).toBe(401);
    room.live.close();
  });

  it('are not read in a language that is not there, or on a page that is not', async () => {
    const { material } = await uploaded(scanned);
    const path = `/api/materials/${material}/words/1`;
    expect((await teacher.send('POST', path, { language: '../eng' })).body.message).toMatch(
      /one of the languages/,
    );
    for (const page of ['2', '-1', 'x'])
      expect((await teacher.send('GET', `/api/materials/${material}/words/${page}`)).status).toBeGreaterThan(
        399,
      );
  });

  it('are given up when nobody waits for them', async () => {
    const { material } = await uploaded(await PDFDocument.load(scanned).then((doc) => doc.save()));
    const abort = new AbortController();
    const path = `/api/materials/${material}/words/1`;
    const asked = fetch(server.url + path, {
      method: 'POST',
      headers: { cookie: teacher.cookie, 'content-type': 'application/json' },
      body: JSON.stringify({ language: 'fra' }),
      signal: abort.signal,
    });
    const response = await asked;
    await response.body!.getReader().read();
    abort.abort();
    expect((await read(path, 'spa')).at(-1)).toHaveProperty('words');
  });

  it('go with the file', async () => {
    const database = server.app.get(DataSource);
    const count = async () => {
      const [row] = await database.query<{ n: number }[]>('SELECT count(*) AS n FROM read_words');
      return row!.n;
    };
    expect(await count()).toBeGreaterThan(0);
    await database.query('DELETE FROM lesson');
    await database.query('DELETE FROM material');
    await database.query('DELETE FROM picture');
    await server.app.get(PurgeService).purge(Date.now() + 10 * 24 * 3600 * 1000);
    expect(await count()).toBe(0);
  });
});
