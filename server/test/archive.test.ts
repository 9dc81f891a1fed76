import 'reflect-metadata';
import type { LessonDetail, LessonSummary, Mark } from '@doodla/core';
import type { ArchivedPage, ArchiveHead } from '@doodla/core/archive';
import { HEAD_SCHEMA, PAGE_SCHEMA } from '@doodla/core/archive';
import { Ajv2020 } from 'ajv/dist/2020.js';
import { strFromU8, strToU8, unzipSync, zipSync } from 'fflate';
import { createHash, randomUUID } from 'node:crypto';
import { readdirSync } from 'node:fs';
import { join } from 'node:path';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { aStroke, aText, common } from '../../core/test/helpers/marks.js';
import type { TestClass } from './helpers/aClass.js';
import { aClass } from './helpers/aClass.js';
import { joiner } from './helpers/joining.js';
import type { TestServer } from './helpers/server.js';
import { Client, colleagueOf, signedIn, startServer } from './helpers/server.js';

let server: TestServer;
let teacher: Client;
let at: TestClass;

let made: Uint8Array;
let files: Files;

beforeAll(async () => {
  server = await startServer();
  teacher = await signedIn(server);
  at = await aClass(server, teacher, '8 Heron');
  await fullLesson();
  made = await archiveOf(server.url, teacher, at.lesson.id);
  files = unzipSync(made);
});
afterAll(() => server.remove());

type Files = Record<string, Uint8Array>;

const PIXEL = Buffer.from(
  'iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mNk+M9QDwADhgGAWjR9awAAAABJRU5ErkJggg==',
  'base64',
);

/** What is told while an archive is made. */
async function toldWhileMaking(
  client: Client,
  lesson: string,
): Promise<{ done?: number; total?: number; archive?: string }[]> {
  const { body } = await client.send<string>('POST', `/api/lessons/${lesson}/archives`);
  return body
    .trim()
    .split('\n')
    .map((line) => JSON.parse(line) as object);
}

async function archiveOf(url: string, client: Client, lesson: string): Promise<Uint8Array> {
  const { archive } = (await toldWhileMaking(client, lesson)).at(-1)!;
  const response = await fetch(`${url}/api/lessons/${lesson}/archives/${archive}`, {
    headers: { cookie: client.cookie },
  });
  expect(response.status).toBe(200);
  return new Uint8Array(await response.arrayBuffer());
}

function bringIn(client: Client, bytes: Uint8Array) {
  const form = new FormData();
  form.append('file', new Blob([bytes as Uint8Array<ArrayBuffer>]), 'lesson.zip');
  return client.send<LessonSummary & { code?: string }>('POST', '/api/archives', form);
}

const json = (files: Files, path: string): unknown => JSON.parse(strFromU8(files[path]!));
const headIn = (files: Files) => json(files, 'lesson.json') as ArchiveHead;
const pageIn = (files: Files, path: string) => json(files, path) as ArchivedPage;

/** What an archive holds, whatever ids it has, and when it was made. */
function plain(files: Files): string {
  const head = headIn(files);
  const names = new Map<string, string>([[head.teacher.id, 'the teacher']]);
  for (const [i, taught] of head.classes.entries()) {
    names.set(taught.id, `class ${i}`);
    for (const [k, { id }] of taught.students.entries()) names.set(id, `student ${k}`);
    for (const [k, { poll }] of taught.polls.entries()) names.set(poll.id, `poll ${k}`);
  }
  const byHash = [...head.files].sort((a, b) => (a.sha256 < b.sha256 ? -1 : 1));
  for (const [i, { id }] of byHash.entries()) names.set(id, `file ${i}`);
  const pages = [...head.pages, ...head.classes.flatMap((each) => each.pages)];
  const content = {
    head: { ...head, madeAt: 0, teacher: null, files: byHash },
    pages: pages.map((path) => {
      const { page, marks } = pageIn(files, path);
      return { page, marks: [...marks].sort((a, b) => (a.id < b.id ? -1 : 1)) };
    }),
  };
  let text = JSON.stringify(content, undefined, 1);
  for (const [id, name] of names) text = text.replaceAll(id, name);
  return text;
}

/** A lesson with prepared marks, a picture, a class with two students, chat, notes and a question. */
async function fullLesson(): Promise<void> {
  const form = new FormData();
  form.append('file', new Blob([PIXEL]), 'pixel.png');
  const { body: picture } = await teacher.send<{ id: string }>(
    'POST',
    `/api/lessons/${at.lesson.id}/pictures`,
    form,
  );
  const page = at.pages[0]!.id;
  const mine = { page, author: at.me };
  const placed: Mark = {
    ...common(),
    ...mine,
    id: 'picture-1',
    kind: 'picture',
    material: picture.id,
    ...{ x: 10, y: 10, width: 50, height: 50, rotation: 0, flip: false },
    crop: { x: 0, y: 0, width: 1, height: 1 },
    style: { opacity: 1 },
  };
  const prepared = aText({ ...mine, id: 'prepared', text: 'Prepared words' });
  expect(
    (
      await at.live.submit(at.lesson, [
        { do: 'add', mark: prepared },
        { do: 'add', mark: placed },
      ])
    ).error,
  ).toBeUndefined();
  await at.live.ask('pens', { sitting: at.sitting.id, up: true });
  const wren = await joiner(server, at)('Wren');
  const written = aStroke({ id: 'by-wren', page, author: wren.id });
  const copied = aStroke({ id: 'copy-of-wren', page, author: wren.id, space: `student:${wren.id}` });
  expect(
    (
      await wren.live.submit(at.sitting, [
        { do: 'add', mark: written },
        { do: 'add', mark: copied },
      ])
    ).error,
  ).toBeUndefined();
  const tell = (who: { live: TestClass['live'] }, event: string, message: object) =>
    who.live.ask(event, { sitting: at.sitting.id, ...message });
  await tell(wren, 'say', { id: randomUUID(), words: 'It bends' });
  const poll = { kind: 'yes-no', question: 'Does it?', options: ['yes', 'no'], hidden: false };
  for (const anonymous of [false, true]) {
    const id = randomUUID();
    await tell(at, 'ask', { poll: { ...poll, id, anonymous } });
    await tell(wren, 'answer', { poll: id, value: 0 });
  }
  const slice = { content: [{ type: 'text', text: 'Beam' }] };
  const steps = [{ stepType: 'replace', from: 1, to: 1, slice }];
  await tell(at, 'noteSteps', { version: 0, steps, client: 'c1' });
}

describe('a lesson archive', () => {
  it('holds everything, described by its schema, as files that other programs read', () => {
    const ajv = new Ajv2020({ strict: true, allowUnionTypes: true });
    expect(json(files, 'schema/lesson.schema.json')).toEqual(HEAD_SCHEMA);
    const isHead = ajv.compile(json(files, 'schema/lesson.schema.json') as object);
    const isPage = ajv.compile(json(files, 'schema/page.schema.json') as object);
    expect(json(files, 'schema/page.schema.json')).toEqual(PAGE_SCHEMA);
    expect(isHead(headIn(files)), ajv.errorsText(isHead.errors)).toBe(true);
    const head = headIn(files);
    expect(head.pages).toEqual(['pages/001.json', 'pages/002.json']);
    const [wren] = head.classes[0]!.students;
    expect(head.classes).toMatchObject([
      {
        title: '8 Heron',
        students: [{ name: 'Wren' }],
        chat: [{ words: 'It bends', name: 'Wren' }],
        // Who answers without a name has none here either.
        polls: [{ answers: [{ student: wren!.id }] }, { answers: [{ student: 'nobody-1' }] }],
      },
    ]);
    expect(JSON.stringify(head.classes[0]!.notes)).toContain('Beam');
    for (const path of [...head.pages, ...head.classes[0]!.pages]) {
      expect(isPage(pageIn(files, path)), ajv.errorsText(isPage.errors)).toBe(true);
      expect(strFromU8(files[path.replace('json', 'svg')]!)).toMatch(/^<svg /);
    }
    const ids = pageIn(files, head.classes[0]!.pages[0]!).marks.map(({ id }) => id);
    expect(ids.sort()).toEqual(['by-wren', 'copy-of-wren']);
    expect(strFromU8(files['pages/001.svg']!)).toContain('>Prepared words</text>');
    // Nothing of a lesson that somebody could come in by.
    expect(strFromU8(files['lesson.json']!)).not.toContain(at.code);
    for (const { path, sha256 } of head.files)
      expect(createHash('sha256').update(files[path]!).digest('hex')).toBe(sha256);
    expect(head.files.map(({ kind }) => kind).sort()).toEqual(['pdf', 'picture']);
  });

  it('reads back without loss, at another school and at the same one', async () => {
    const elsewhere = await startServer();
    const other = await signedIn(elsewhere);
    for (const [url, client] of [
      [server.url, teacher],
      [elsewhere.url, other],
    ] as const) {
      const { status, body } = await bringIn(client, made);
      expect(status).toBe(201);
      expect(body.id).not.toBe(at.lesson.id);
      const again = await archiveOf(url, client, body.id);
      // The first was made while its class went on; read back it has ended.
      const ended = (text: string) => text.replace(/"endedAt": (null|\d+)/g, '"endedAt": 0');
      expect(ended(plain(unzipSync(again)))).toBe(ended(plain(unzipSync(made))));
      const { body: detail } = await client.send<LessonDetail>('GET', `/api/lessons/${body.id}`);
      expect(detail.sittings).toMatchObject([{ title: '8 Heron' }]);
    }
    await elsewhere.remove();
  });

  it('says how far it is while it is made, and is fetched once', async () => {
    const told = await toldWhileMaking(teacher, at.lesson.id);
    const steps = told.slice(0, -1).map(({ done, total }) => done! / total!);
    expect(steps).toEqual([...steps].sort((a, b) => a - b));
    // Two pages of the lesson and two of its class, each written down and drawn.
    expect(told[0]).toEqual({ done: 1, total: 8 });
    expect(steps.at(-1)).toBe(1);
    const path = `/api/lessons/${at.lesson.id}/archives/${told.at(-1)!.archive}`;
    expect((await (await colleagueOf(server, teacher, 'Bea')).send('GET', path)).status).toBe(404);
    expect((await teacher.send('GET', path)).status).toBe(200);
    expect((await teacher.send('GET', path)).status).toBe(404);
  });

  it('is the teacher’s alone', async () => {
    const stranger = new Client(server.url);
    expect((await stranger.send('POST', `/api/lessons/${at.lesson.id}/archives`)).status).toBe(401);
    expect((await bringIn(stranger, zipSync({}))).status).toBe(401);
    expect((await teacher.send('POST', `/api/lessons/${randomUUID()}/archives`)).status).toBe(404);
  });

  it('that is none, damaged, of a later Doodla or a trap is refused with what to do, and nothing of it stays', async () => {
    const head = headIn(files);
    const pdf = head.files.find(({ kind }) => kind === 'pdf')!;
    const picture = head.files.find(({ kind }) => kind === 'picture')!;
    const withHead = (set: object) =>
      zipSync({ ...files, 'lesson.json': strToU8(JSON.stringify({ ...head, ...set })) });
    const fakes = (file: typeof pdf, bytes: Uint8Array) => {
      const sha256 = createHash('sha256').update(bytes).digest('hex');
      const all = head.files.map((each) => (each === file ? { ...each, sha256 } : each));
      return zipSync({
        ...files,
        [file.path]: bytes,
        'lesson.json': strToU8(JSON.stringify({ ...head, files: all })),
      });
    };
    const withoutPdf = Object.fromEntries(Object.entries(files).filter(([path]) => path !== pdf.path));
    const cases: [string, Uint8Array][] = [
      ['archive-none', strToU8('no zip at all')],
      ['archive-none', zipSync({ 'a.txt': strToU8('a') })],
      ['archive-none', withHead({ format: 'other' })],
      ['archive-newer', withHead({ version: 99 })],
      ['archive-broken', withHead({ pages: ['pages/009.json'] })],
      ['archive-broken', withHead({ files: [{ ...pdf, path: '../../../secret.pdf' }] })],
      ['archive-broken', zipSync(withoutPdf)],
      ['archive-broken', zipSync({ ...files, [pdf.path]: strToU8('another') })],
      ['archive-broken', zipSync({ ...files, 'pages/001.json': strToU8('{"page":{},"marks":[]}') })],
      ['archive-file-damaged', fakes(pdf, strToU8('%PDF-1.7 but no more'))],
      ['archive-file-damaged', fakes(picture, new Uint8Array(PIXEL.subarray(0, 20)))],
    ];
    const before = (await teacher.send<LessonSummary[]>('GET', '/api/lessons')).body.length;
    for (const [code, bytes] of cases) {
      const { status, body } = await bringIn(teacher, bytes);
      expect(body.code).toBe(code);
      expect(status).toBeGreaterThanOrEqual(400);
      expect(status).toBeLessThan(500);
    }
    expect((await teacher.send<LessonSummary[]>('GET', '/api/lessons')).body).toHaveLength(before);
    expect(readdirSync(join(server.data, 'incoming'))).toEqual([]);
  });
});
