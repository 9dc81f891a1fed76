import 'reflect-metadata';
import type { Mark, SearchReply } from '@doodla/core';
import { randomUUID } from 'node:crypto';
import { afterAll, beforeAll, describe, expect, it, vi } from 'vitest';
import { PDFDocument, StandardFonts } from '@cantoo/pdf-lib';
import { PdfReader } from '../src/materials/pdfReader.js';
import { SearchIndexService } from '../src/search/searchIndex.service.js';
import { wordsOfHtml } from '../src/search/wordsOfHtml.js';
import { aNote, aStroke, aText } from '../../core/test/helpers/marks.js';
import type { TestClass } from './helpers/aClass.js';
import { aClass } from './helpers/aClass.js';
import type { TestServer } from './helpers/server.js';
import { Client, signedIn, startServer } from './helpers/server.js';

let server: TestServer;
let teacher: Client;

beforeAll(async () => {
  server = await startServer();
  teacher = await signedIn(server);
});
afterAll(() => server.remove());

async function pdfSaying(...pages: string[]): Promise<Uint8Array> {
  const doc = await PDFDocument.create();
  const font = await doc.embedFont(StandardFonts.Helvetica);
  for (const words of pages) doc.addPage([400, 300]).drawText(words, { x: 20, y: 200, size: 14, font });
  return doc.save();
}

const find = async (words: string) => {
  await server.app.get(SearchIndexService).settled();
  return (await teacher.send<SearchReply>('GET', `/api/search?q=${encodeURIComponent(words)}`)).body;
};
const put = async (at: Pick<TestClass, 'live'>, log: TestClass['sitting'], mark: Mark) => {
  expect((await at.live.submit(log, [{ do: 'add', mark }])).error).toBeUndefined();
  return mark;
};
const text = (at: TestClass, words: string, set: object = {}) =>
  aText({ id: randomUUID(), page: at.pages[0]!.id, author: at.me, text: words, ...set });

describe('search', () => {
  it('finds what a document says, with its page and the words around, also by beginnings and without accents', async () => {
    const { lesson } = await teacher.upload(
      'cables.pdf',
      await pdfSaying('A beam bends', 'The catenary of a hanging cable, says Zoë'),
    );
    for (const words of ['catenary', 'CATEN', 'hanging cable', 'zoe', 'zoë']) {
      const { pages } = await find(words);
      expect(pages, words).toMatchObject([
        { lesson: lesson!.id, lessonTitle: 'cables', sitting: null, number: 2 },
      ]);
    }
    const { pages } = await find('cable hang');
    expect(pages[0]!.snippet.filter(({ hit }) => hit).map(({ words }) => words)).toEqual([
      'hanging',
      'cable',
    ]);
    expect((await find('catenary beam')).pages).toEqual([]);
  });

  it('finds what is typed, in a class with its name, and no longer once it is changed or gone', async () => {
    const at = await aClass(server, teacher, 'Heron on Monday');
    const mark = await put(at, at.sitting, text(at, 'Voussoirs press on each other'));
    const prepared = await put(at, at.lesson, text(at, 'Keystone on top'));
    await put(
      at,
      at.sitting,
      aNote({ id: randomUUID(), page: at.pages[1]!.id, author: at.me, text: 'Spandrel' }),
    );
    await put(
      at,
      at.sitting,
      aStroke({ id: randomUUID(), page: at.pages[1]!.id, author: at.me, alt: 'An abutment' }),
    );
    expect((await find('voussoir')).pages).toMatchObject([
      { sitting: at.sitting.id, sittingTitle: 'Heron on Monday', number: 1 },
    ]);
    expect((await find('keystone')).pages).toMatchObject([
      { sitting: null, lesson: at.lesson.id, number: 1 },
    ]);
    for (const words of ['spandrel', 'abutment'])
      expect((await find(words)).pages, words).toMatchObject([{ number: 2 }]);

    await at.live.submit(at.sitting, [{ do: 'patch', mark: mark.id, set: { text: 'Wedges press' } }]);
    await at.live.submit(at.lesson, [{ do: 'remove', mark: prepared.id }]);
    expect((await find('voussoir')).pages).toEqual([]);
    expect((await find('keystone')).pages).toEqual([]);
    expect((await find('wedges')).pages).toHaveLength(1);
    at.live.close();
  });

  it('finds lessons by title and tag, classes by name and day, and pages by theirs', async () => {
    const at = await aClass(server, teacher, 'Linnet in the rain');
    await teacher.send('PATCH', `/api/lessons/${at.lesson.id}`, { title: 'Gantries', tags: ['cranes'] });
    await at.live.submit(at.lesson, [
      { do: 'patchPage', page: at.pages[1]!.id, set: { title: 'Derricks compared' } },
    ]);
    for (const words of ['gantr', 'cranes'])
      expect((await find(words)).lessons, words).toMatchObject([{ lesson: at.lesson.id, title: 'Gantries' }]);
    const day = new Intl.DateTimeFormat('en-GB', { weekday: 'long', month: 'long', year: 'numeric' });
    for (const words of ['linnet', `linnet ${day.format(new Date())}`])
      expect((await find(words)).classes, words).toMatchObject([
        { sitting: at.sitting.id, lesson: at.lesson.id, lessonTitle: 'Gantries' },
      ]);
    expect((await find('derricks')).pages).toMatchObject([{ page: at.pages[1]!.id, number: 2 }]);
    at.live.close();
  });

  it('finds classes by their notes', async () => {
    const at = await aClass(server, teacher, 'Noted');
    const step = {
      stepType: 'replace',
      from: 1,
      to: 1,
      slice: { content: [{ type: 'text', text: 'Buttresses lean inwards' }] },
    };
    const steps = { sitting: at.sitting.id, version: 0, steps: [step], client: 'ada' };
    expect((await at.live.ask<{ error?: object }>('noteSteps', steps)).error).toBeUndefined();
    const { classes, pages } = await find('buttress');
    expect(pages).toEqual([]);
    expect(classes).toMatchObject([{ sitting: at.sitting.id, title: 'Noted', lesson: at.lesson.id }]);
    expect(classes[0]!.snippet.find(({ hit }) => hit)?.words).toBe('Buttresses');
    expect((await find('noted')).classes).toMatchObject([{ sitting: at.sitting.id, snippet: [] }]);
    at.live.close();
  });

  it('finds nothing of what is deleted, dropped, or another teacher’s, and takes any question', async () => {
    const at = await aClass(server, teacher, 'Deleted soon');
    await put(at, at.sitting, text(at, 'Cantilever'));
    await put(at, at.lesson, text(at, 'Counterweight'));
    expect((await find('cantilever')).pages).toHaveLength(1);
    await teacher.send('POST', `/api/sittings/${at.sitting.id}/end`, { drop: true });
    expect((await find('cantilever')).pages).toEqual([]);
    await teacher.send('DELETE', `/api/lessons/${at.lesson.id}`);
    expect(await find('counterweight')).toEqual({ lessons: [], classes: [], pages: [] });
    for (const odd of ['', '"', 'a AND (', 'NEAR(x', '*', '—', 'title:x', 'x"*'])
      expect(await find(odd), odd).toHaveProperty('pages');
    expect((await new Client(server.url).send('GET', '/api/search?q=beam')).status).toBe(401);
    expect((await teacher.send('GET', `/api/search?q=${'x'.repeat(300)}`)).status).toBe(400);
    at.live.close();
  });

  it('finds what was there before the server was started again, and what never was indexed', async () => {
    const at = await aClass(server, teacher, 'Before');
    await put(at, at.sitting, text(at, 'Trestle'));
    at.live.close();
    await server.stop();
    server = await startServer({}, server.data);
    const again = new Client(server.url);
    again.cookie = teacher.cookie;
    teacher = again;
    expect((await find('trestle')).pages).toMatchObject([{ sittingTitle: 'Before' }]);
  });
});

describe('a server that ends', () => {
  it('does not wait for a document to be read, and the next one reads it', async () => {
    const pool = server.app.get(PdfReader);
    const never = vi
      .spyOn(pool, 'words')
      .mockImplementation(
        (_path, { signal }) =>
          new Promise((_resolve, reject) =>
            signal!.addEventListener('abort', () => reject(signal!.reason as Error)),
          ),
      );
    await teacher.upload('late.pdf', await pdfSaying('Corbelled vaults'));
    void server.app.get(SearchIndexService).settled();
    await vi.waitUntil(() => never.mock.calls.length > 0);
    await server.stop();
    server = await startServer({}, server.data);
    const again = new Client(server.url);
    again.cookie = teacher.cookie;
    teacher = again;
    expect((await find('corbelled')).pages).toMatchObject([{ lessonTitle: 'late' }]);
  });
});

describe('the words of a web page', () => {
  it('are those that are seen, with their characters', () => {
    const html =
      '<!doctype html><html><head><title>T</title><style>p > a { color: red }</style></head><body><!-- no --><h1>Load &amp; span</h1><p title="not seen">3 &lt; 4&nbsp;m &#8212; caf&#233;</p><img alt="x" src="data:,"></body></html>';
    expect(wordsOfHtml(html)).toBe('Load & span 3 < 4 m — café');
    expect(wordsOfHtml('<p>cut off <b')).toBe('cut off');
  });
});
