import 'reflect-metadata';
import type {
  Colleague,
  InvitationDoor,
  InvitationReply,
  LessonDetail,
  LessonSummary,
  Me,
  SchoolHealth,
  SchoolTeacher,
} from '@doodla/core';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { aText } from '../../core/test/helpers/marks.js';
import { aClass } from './helpers/aClass.js';
import { joiner } from './helpers/joining.js';
import { LiveClient } from './helpers/live.js';
import { pdfWith } from './helpers/pdfs.js';
import type { TestServer } from './helpers/server.js';
import { Client, colleagueOf, signedIn, startServer } from './helpers/server.js';

let server: TestServer;
let admin: Client;

beforeAll(async () => {
  server = await startServer();
  admin = await signedIn(server);
});
afterAll(() => server.remove());

const teachers = async (who = admin) => (await who.send<SchoolTeacher[]>('GET', '/api/school/teachers')).body;
const idOf = async (name: string) => (await teachers()).find((each) => each.name === name)!.id;
const tokenOf = ({ url }: InvitationReply) => url.split('/invited/')[1]!;
const invite = (name: string, who = admin) =>
  who.send<InvitationReply & { code?: string }>('POST', '/api/school/invitations', {
    name,
    email: `${name.toLowerCase()}@School.example`,
  });
const accept = (client: Client, token: string, what: object = {}) =>
  client.send('POST', `/api/invitations/${token}`, { name: 'Any', password: 'chalk-and-board', ...what });

const colleague = (name: string) => colleagueOf(server, admin, name);

describe('an invitation', () => {
  it('makes somebody a teacher of the school, once, with a password of their own', async () => {
    const token = tokenOf((await invite('Bea')).body);
    const bea = new Client(server.url);
    const { body: door } = await bea.send<InvitationDoor>('GET', `/api/invitations/${token}`);
    expect(door).toEqual({ name: 'Bea', email: 'bea@school.example', isReset: false, school: '' });
    expect((await accept(bea, token, { password: 'short' })).status).toBe(400);
    expect((await accept(bea, token, { name: 'Bea Moor' })).status).toBe(204);
    const { body: me } = await bea.send<Me>('GET', '/api/me');
    expect(me.teacher).toMatchObject({ name: 'Bea Moor', admin: false });
    expect((await accept(new Client(server.url), token)).body.code).toBe('invitation-gone');
    const signIn = { email: 'BEA@school.example', password: 'chalk-and-board' };
    expect((await new Client(server.url).send('POST', '/api/sign-in', signIn)).status).toBe(204);
    expect((await invite('Bea')).body.code).toBe('address-taken');
  });

  it('is only the last one to an address, and is made by nobody but whoever looks after the school', async () => {
    const first = tokenOf((await invite('Cleo')).body);
    const second = tokenOf((await invite('Cleo')).body);
    expect((await accept(new Client(server.url), first)).body.code).toBe('invitation-gone');
    const cleo = new Client(server.url);
    expect((await accept(cleo, second, { name: 'Cleo' })).status).toBe(204);
    expect((await invite('Dan', cleo)).body.code).toBe('not-admin');
    expect((await invite('Dan', new Client(server.url))).status).toBe(401);
    expect((await cleo.send('GET', '/api/school/teachers')).status).toBe(403);
    expect((await cleo.send('GET', '/api/school/health')).status).toBe(403);
    expect((await cleo.send<Colleague[]>('GET', '/api/school/colleagues')).body.length).toBeGreaterThan(0);
  });

  it('lets a teacher choose a new password, and signs them out everywhere else', async () => {
    const dora = await colleague('Dora');
    const { body } = await admin.send<InvitationReply>(
      'POST',
      `/api/school/teachers/${await idOf('Dora')}/reset`,
    );
    const again = new Client(server.url);
    const { body: door } = await again.send<InvitationDoor>('GET', `/api/invitations/${tokenOf(body)}`);
    expect(door.isReset).toBe(true);
    expect((await accept(again, tokenOf(body), { password: 'another-board' })).status).toBe(204);
    expect((await dora.send<Me>('GET', '/api/me')).body.teacher).toBeNull();
    expect((await again.send<Me>('GET', '/api/me')).body.teacher).toMatchObject({ name: 'Dora' });
    const signIn = (password: string) =>
      new Client(server.url).send('POST', '/api/sign-in', { email: 'dora@school.example', password });
    expect((await signIn('chalk-and-board')).status).toBe(401);
    expect((await signIn('another-board')).status).toBe(204);
  });
});

describe('whoever looks after the school', () => {
  it('sees how the server is, and lets others look after it too, but never nobody', async () => {
    const { body } = await admin.send<SchoolHealth>('GET', '/api/school/health');
    expect(body).toMatchObject({ retentionDays: 180, maxUploadMb: 100, cleared: [] });
    expect(body.free).toBeGreaterThan(0);
    const [first] = await teachers();
    const set = (id: string, on: boolean) => admin.send('PATCH', `/api/school/teachers/${id}`, { admin: on });
    expect((await set(first!.id, false)).body.code).toBe('last-admin');
    const eve = await colleague('Eve');
    expect((await set(await idOf('Eve'), true)).status).toBe(204);
    expect((await teachers(eve)).find(({ name }) => name === 'Eve')).toMatchObject({ admin: true });
    expect((await set(await idOf('Eve'), false)).status).toBe(204);
    expect((await eve.send('GET', '/api/school/teachers')).status).toBe(403);
  });

  it('says what the school is called', async () => {
    const set = (name: string, who = admin) => who.send('PUT', '/api/school/name', { name });
    expect((await set(' ')).body.code).toBe('school-name');
    expect((await set('Quillmere', await colleague('Nils'))).status).toBe(403);
    expect((await set(' Quillmere  School ')).status).toBe(204);
    const { body } = await admin.send<SchoolHealth>('GET', '/api/school/health');
    expect(body.name).toBe('Quillmere School');
  });

  it('sets how much is brought in and how long classes are kept, within bounds, and that holds after a start', async () => {
    const limits = { maxUploadMb: 7, maxPages: 3, retentionDays: 30, tellOfRecording: true };
    const set = (what: object, who = admin) => who.send('PUT', '/api/school/limits', what);
    expect((await set({ ...limits, maxPages: 0 })).body.code).toBe('limit');
    expect((await set({ ...limits, retentionDays: 1.5 })).body.code).toBe('limit');
    expect((await set(limits, await colleague('Lena'))).status).toBe(403);
    expect((await set(limits)).status).toBe(204);
    const health = async () => (await admin.send<SchoolHealth>('GET', '/api/school/health')).body;
    expect(await health()).toMatchObject(limits);
    const { code } = await admin.upload(
      'long.pdf',
      await pdfWith(...Array<[number, number]>(4).fill([200, 200])),
    );
    expect(code).toBe('too-many-pages');
    await server.stop();
    server = await startServer({}, server.data);
    const again = new Client(server.url);
    again.cookie = admin.cookie;
    admin = again;
    expect(await health()).toMatchObject(limits);
    expect((await set({ ...limits, maxUploadMb: 100, maxPages: 500, retentionDays: 180 })).status).toBe(204);
  });

  it('takes a teacher out, and everything of theirs goes to another one', async () => {
    const finn = await colleague('Finn');
    const gail = await colleague('Gail');
    const at = await aClass(server, finn, '7 Wren');
    const mark = aText({ id: 'kept', page: at.pages[0]!.id, author: at.me, text: 'Stays' });
    await at.live.submit(at.lesson, [{ do: 'add', mark }]);
    at.live.close();
    const leave = (who: string, to: string) =>
      admin.send('POST', `/api/school/teachers/${who}/leave`, { to });
    const [finnId, gailId] = [await idOf('Finn'), await idOf('Gail')];
    expect((await leave(finnId, finnId)).status).toBe(404);
    expect((await leave((await teachers())[0]!.id, gailId)).body.code).toBe('last-admin');
    expect((await leave(finnId, gailId)).status).toBe(204);
    expect((await finn.send<Me>('GET', '/api/me')).body.teacher).toBeNull();
    expect((await teachers()).map(({ id }) => id)).not.toContain(finnId);
    const { body } = await gail.send<LessonDetail>('GET', `/api/lessons/${at.lesson.id}`);
    expect(body.sittings).toMatchObject([{ title: '7 Wren' }]);
    const live = await LiveClient.connect(server.url, { cookie: gail.cookie });
    await live.open(at.lesson);
    const { marks, pages } = await live.snapshot(at.lesson);
    expect(marks).toMatchObject([{ id: 'kept', text: 'Stays' }]);
    const { surface } = pages[0]!;
    const address = `/api/materials/${'material' in surface ? surface.material : ''}/file`;
    const file = await fetch(server.url + address, { headers: { cookie: gail.cookie } });
    expect(file.status).toBe(200);
    live.close();
  });
});

describe('a copy for a colleague', () => {
  it('is a lesson of their own, without the classes and their students', async () => {
    const hal = await colleague('Hal');
    const at = await aClass(server, admin, '9 Kite');
    await joiner(server, at)('Wren');
    const mark = aText({ id: 'given', page: at.pages[0]!.id, author: at.me, text: 'Prepared' });
    await at.live.submit(at.lesson, [{ do: 'add', mark }]);
    at.live.close();
    const give = (who: Client, to: string) =>
      who.send('POST', `/api/lessons/${at.lesson.id}/copies-for`, { to });
    expect((await give(hal, await idOf('Hal'))).status).toBe(404);
    expect((await give(admin, await idOf('Hal'))).status).toBe(204);
    const [copy] = (await hal.send<LessonSummary[]>('GET', '/api/lessons')).body;
    expect(copy!.id).not.toBe(at.lesson.id);
    const { body } = await hal.send<LessonDetail>('GET', `/api/lessons/${copy!.id}`);
    expect(body.sittings).toEqual([]);
    const live = await LiveClient.connect(server.url, { cookie: hal.cookie });
    const lesson = { kind: 'lesson', id: copy!.id } as const;
    await live.open(lesson);
    expect((await live.snapshot(lesson)).marks).toMatchObject([{ text: 'Prepared' }]);
    live.close();
    // What the one changes, the other does not see.
    await hal.send('DELETE', `/api/lessons/${copy!.id}`);
    expect((await admin.send('GET', `/api/lessons/${at.lesson.id}`)).status).toBe(200);
  });
});
