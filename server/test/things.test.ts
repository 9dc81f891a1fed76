import type { Mark, PictureMark, ShelfContent, ShelfThing } from '@doodla/core';
import { randomUUID } from 'node:crypto';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { KEPT_MS, PurgeService, TRASH_MS } from '../src/lessons/purge.service.js';
import { Database } from '../src/storage/database.js';
import { aText, common } from '../../core/test/helpers/marks.js';
import type { TestClass } from './helpers/aClass.js';
import { aClass } from './helpers/aClass.js';
import { pictureForm } from './helpers/pngs.js';
import type { TestServer } from './helpers/server.js';
import { Client, colleagueOf, signedIn, startServer } from './helpers/server.js';

let server: TestServer;
let teacher: Client;
let at: TestClass;

beforeAll(async () => {
  server = await startServer();
  teacher = await signedIn(server);
  at = await aClass(server, teacher);
});
afterAll(() => server.remove());

const onPage = (index = 0) => ({ page: at.pages[index]!.id, author: at.me });

async function put(log: TestClass['lesson'], ...marks: Mark[]): Promise<void> {
  const { error } = await at.live.submit(
    log,
    marks.map((mark) => ({ do: 'add', mark })),
  );
  expect(error).toBeUndefined();
}

/** A picture of the lesson with a word beside it, as one group. */
async function labelledPicture(): Promise<Mark[]> {
  const { body } = await teacher.send<{ id: string }>(
    'POST',
    `/api/lessons/${at.lesson.id}/pictures`,
    pictureForm(),
  );
  const picture: PictureMark = {
    ...common(),
    ...{ id: randomUUID(), ...onPage(), group: 'g1' },
    kind: 'picture',
    material: body.id,
    crop: { x: 0, y: 0, width: 1, height: 1 },
    ...{ x: 10, y: 10, width: 80, height: 60, rotation: 0, flip: false },
    style: { opacity: 1 },
  };
  const word = aText({ id: randomUUID(), ...onPage(), group: 'g1', order: 'a1', text: 'Keystone' });
  await put(at.lesson, picture, word);
  return [picture, word];
}

interface Sent extends ShelfThing {
  code?: string;
}
const keep = (what: object, who = teacher) =>
  who.send<Sent>('POST', '/api/shelf/things', {
    lesson: at.lesson.id,
    pages: [at.pages[0]!.id],
    title: 'Labelled arch',
    folder: '',
    ...what,
  });
const list = async (question: string, who = teacher) =>
  (await who.send<ShelfThing[]>('GET', `/api/shelf/things?${question}`)).body;
const use = (id: string, place: object, who = teacher) =>
  who.send<ShelfContent & { code?: string }>('POST', `/api/shelf/things/${id}/uses`, place);

describe('marks on a shelf', () => {
  it('are used in another lesson, with pictures of their own there', async () => {
    const marks = await labelledPicture();
    const { status, body: thing } = await keep({ marks: marks.map(({ id }) => id), folder: 'Bridges' });
    expect([status, thing.kind, thing.count]).toEqual([201, 'marks', 2]);
    const other = await aClass(server, teacher, 'Tomorrow');
    const place = { lesson: other.lesson.id, sitting: other.sitting.id };
    const { status: used, body } = await use(thing.id, place);
    expect(used).toBe(201);
    const [part] = body.parts;
    expect(part!.page).toBeNull();
    expect(part!.marks.map(({ kind, group }) => [kind, group])).toEqual([
      ['picture', 'g1'],
      ['text', 'g1'],
    ]);
    const { material } = part!.marks[0] as PictureMark;
    expect(material).not.toBe((marks[0] as PictureMark).material);
    expect((await teacher.send('GET', `/api/pictures/${material}`)).status).toBe(200);
    other.live.close();
  });

  it('stay when the lesson that they come from is gone for good', async () => {
    const lost = await aClass(server, teacher, 'Lost');
    const mark = aText({ id: randomUUID(), page: lost.pages[0]!.id, author: lost.me, text: 'Stays' });
    await lost.live.submit(lost.lesson, [{ do: 'add', mark }]);
    const from = { lesson: lost.lesson.id, pages: [lost.pages[0]!.id] };
    const { body: thing } = await keep({ ...from, title: 'A page that stays' });
    lost.live.close();
    await teacher.send('DELETE', `/api/lessons/${lost.lesson.id}`);
    await server.app.get(PurgeService).purge(Date.now() + TRASH_MS + 2 * KEPT_MS);
    const { body } = await use(thing.id, { lesson: at.lesson.id });
    const { page } = body.parts[0]!;
    expect(page!.surface.kind).toBe('pdf');
    const material = 'material' in page!.surface ? page!.surface.material : '';
    expect((await teacher.send('GET', `/api/materials/${material}/file`)).status).toBe(200);
    expect(body.parts[0]!.marks).toMatchObject([{ kind: 'text', text: 'Stays' }]);
  });

  it('of a class and its students come without the names of anybody', async () => {
    const mark = { ...aText({ id: randomUUID(), ...onPage(), text: 'Good idea' }), credit: 'Kiri' };
    await put(at.sitting, { ...mark, space: 'student:someone' });
    const { body: thing } = await keep({ sitting: at.sitting.id, marks: [mark.id] });
    const { body } = await use(thing.id, { lesson: at.lesson.id });
    expect(body.parts[0]!.marks).toMatchObject([{ author: at.me, space: 'class' }]);
    expect(JSON.stringify(body)).not.toMatch(/Kiri|someone/);
  });

  it('are found by their name, their folder and what is typed on them', async () => {
    const mark = aText({ id: randomUUID(), ...onPage(1), text: 'Größe der Wölbung' });
    await put(at.lesson, mark);
    const what = { marks: [mark.id], pages: [at.pages[1]!.id], title: 'Vault', folder: 'Roofs' };
    const { body: thing } = await keep(what);
    const found = async (words: string) =>
      (await list(`of=own&words=${encodeURIComponent(words)}`)).map(({ id }) => id);
    for (const words of ['vau', 'roof', 'wolb', 'groß vault']) expect(await found(words)).toEqual([thing.id]);
    expect(await found('vault bridge')).toEqual([]);
    expect(await found('')).toContain(thing.id);
  });
});

describe('the shelf of the school', () => {
  it('has what teachers share, for all of them, and nothing else', async () => {
    const bea = await colleagueOf(server, teacher, 'Bea');
    const { body: thing } = await keep({ title: 'Shared page' });
    const beas = (await aClass(server, bea, 'Hers')).lesson.id;
    expect(await list('of=school', bea)).toEqual([]);
    expect((await use(thing.id, { lesson: beas }, bea)).status).toBe(404);
    expect((await teacher.send('PATCH', `/api/shelf/things/${thing.id}`, { shared: true })).status).toBe(204);
    expect(await list('of=school', bea)).toMatchObject([{ id: thing.id, owner: 'Ada Fenn' }]);
    expect(await list('of=own', bea)).toEqual([]);
    const { body } = await use(thing.id, { lesson: beas }, bea);
    const { surface } = body.parts[0]!.page!;
    const file = `/api/materials/${'material' in surface ? surface.material : ''}/file`;
    expect((await bea.send('GET', file)).status).toBe(200);
    const again = (await use(thing.id, { lesson: beas }, bea)).body.parts[0]!.page!.surface;
    expect(again).toEqual(surface);
    for (const [method, path] of [
      ['PATCH', ''],
      ['DELETE', ''],
      ['PUT', '/picture'],
    ] as const)
      expect((await bea.send(method, `/api/shelf/things/${thing.id}${path}`, {})).status).toBe(404);
    expect((await use(thing.id, { lesson: at.lesson.id }, bea)).status).toBe(404);
  });

  it('is for teachers alone', async () => {
    const stranger = new Client(server.url);
    expect((await keep({}, stranger)).status).toBe(401);
    expect((await stranger.send('GET', '/api/shelf/things?of=school')).status).toBe(401);
  });
});

describe('a thing', () => {
  it('is renamed, put into a folder, taken off the shelf and put back', async () => {
    const { body: thing } = await keep({ title: 'Old' });
    const path = `/api/shelf/things/${thing.id}`;
    const ids = async () => (await list('of=own')).map(({ id }) => id);
    expect((await teacher.send('PATCH', path, { title: ' New  name ', folder: 'Arches' })).status).toBe(204);
    expect((await list('of=own')).find(({ id }) => id === thing.id)).toMatchObject({
      title: 'New name',
      folder: 'Arches',
    });
    expect((await teacher.send('DELETE', path)).status).toBe(204);
    expect(await ids()).not.toContain(thing.id);
    expect((await use(thing.id, { lesson: at.lesson.id })).status).toBe(404);
    expect((await teacher.send('POST', `${path}/restored`)).status).toBe(204);
    expect(await ids()).toContain(thing.id);
    await teacher.send('DELETE', path);
    await server.app.get(PurgeService).purge(Date.now() + TRASH_MS + KEPT_MS);
    expect((await teacher.send('POST', `${path}/restored`)).status).toBe(404);
    const rows = await server.app
      .get(Database)
      .all<unknown>('SELECT 1 FROM shelf_thing WHERE id = ?', [thing.id]);
    expect(rows).toEqual([]);
  });

  it('shows a picture of itself, a PNG of no more than a megabyte', async () => {
    const { body: thing } = await keep({});
    const path = `/api/shelf/things/${thing.id}/picture`;
    expect((await teacher.send('GET', path)).status).toBe(404);
    const { body: refused } = await teacher.send('PUT', path, pictureForm('#000000', 'jpeg'));
    expect(refused.code).toBe('not-a-picture');
    expect((await teacher.send('PUT', path, pictureForm())).status).toBe(204);
    expect((await teacher.send('GET', path)).headers.get('content-type')).toBe('image/png');
    expect((await list('of=own')).find(({ id }) => id === thing.id)?.hasPicture).toBe(true);
  });

  it('that cannot be kept is refused with what to do', async () => {
    expect((await keep({ title: 'x'.repeat(101) })).body.code).toBe('shelf-title');
    expect((await keep({ title: '' })).body.title).toBe('lesson');
    expect((await keep({ folder: 'x'.repeat(101) })).body.code).toBe('shelf-title');
    expect((await keep({ pages: Array(61).fill('p') })).body.code).toBe('shelf-pages');
    expect((await keep({ marks: Array(2001).fill('m') })).body.code).toBe('shelf-marks');
    expect((await keep({ marks: ['no-such-mark'] })).status).toBe(404);
    expect((await keep({ pages: ['no-such-page'] })).status).toBe(404);
    expect((await keep({ sitting: randomUUID() })).status).toBe(404);
    expect((await keep({ lesson: randomUUID() })).status).toBe(404);
  });
});
