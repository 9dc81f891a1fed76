import type { InvitationDoor, InvitationReply, Me, SchoolHealth } from '@doodla/core';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { SearchIndexService } from '../src/search/searchIndex.service.js';
import { Database } from '../src/storage/database.js';
import { aText } from '../../core/test/helpers/marks.js';
import { aClass } from './helpers/aClass.js';
import { askIn, joiner } from './helpers/joining.js';
import { pdfWith } from './helpers/pdfs.js';
import { pictureForm } from './helpers/pngs.js';
import {
  accepted,
  anotherSchool,
  figuresOf,
  OPERATOR,
  operatorOf,
  schoolOf,
  tokenOf,
} from './helpers/schools.js';
import type { TestServer } from './helpers/server.js';
import { ADA, Client, colleagueOf, signedIn, startServer } from './helpers/server.js';
import { tablesOf } from './helpers/testDatabase.js';

let server: TestServer;
let ada: Client;
let operator: Client;

beforeAll(async () => {
  server = await startServer();
  ada = await signedIn(server);
  operator = await operatorOf(server);
});
afterAll(() => server.remove());

const change = (id: string, what: object, who = operator) =>
  who.send('PATCH', `/api/installation/schools/${id}`, what);
const healthOf = async (admin: Client) => (await admin.send<SchoolHealth>('GET', '/api/school/health')).body;
let count = 0;
/** A school that nobody else knows of. */
const aSchool = async () => {
  const slug = `school-${(count += 1)}`;
  const email = `head${count}@${slug}.example`;
  return { slug, email, ...(await anotherSchool(server, operator, slug, { name: 'Head', email })) };
};

describe('whoever looks after the installation', () => {
  it('comes in by a link, once; from then on by address and password, and nobody makes themselves the first teacher', async () => {
    const alone = await startServer({ DOODLA_OPERATOR: OPERATOR.email });
    try {
      const nobody = new Client(alone.url);
      expect((await nobody.send<Me>('GET', '/api/me')).body).toMatchObject({ needsSetup: false });
      expect((await nobody.send('POST', '/api/setup', ADA)).body.code).toBe('already-set-up');
      const otis = await operatorOf(alone);
      expect((await otis.send<Me>('GET', '/api/me')).body).toMatchObject({
        teacher: null,
        operator: { name: OPERATOR.name },
      });
      await otis.send('POST', '/api/sign-out');
      expect((await otis.send('GET', '/api/installation')).status).toBe(401);
      expect((await otis.send('POST', '/api/sign-in', OPERATOR)).status).toBe(204);
      expect((await otis.send('GET', '/api/installation')).status).toBe(200);
      const [first] = (await figuresOf(otis)).schools;
      const { body } = await otis.send<InvitationReply>(
        'POST',
        `/api/installation/schools/${first!.id}/invitations`,
        { name: ADA.name, email: ADA.email },
      );
      const admin = await accepted(alone, tokenOf(body), ADA);
      expect((await admin.send<Me>('GET', '/api/me')).body.teacher).toMatchObject({ admin: true });
    } finally {
      await alone.remove();
    }
  });

  it('is nobody to whatever is in a school, and teachers are nobody to the installation', async () => {
    const at = await aClass(server, ada);
    for (const path of [
      '/api/lessons',
      `/api/lessons/${at.lesson.id}`,
      `/api/sittings/${at.sitting.id}`,
      '/api/school/teachers',
      '/api/school/health',
      '/api/school/colleagues',
      '/api/groups',
      '/api/shelf/things?of=school',
    ])
      expect([path, (await operator.send('GET', path)).status]).toEqual([path, 401]);
    for (const [method, path] of [
      ['GET', ''],
      ['POST', '/schools'],
      ['PATCH', `/schools/${(await schoolOf(operator, 'school')).id}`],
      ['POST', `/schools/${(await schoolOf(operator, 'school')).id}/invitations`],
      ['POST', `/schools/${(await schoolOf(operator, 'school')).id}/erase`],
    ] as const)
      expect(
        (await ada.send(method, `/api/installation${path}`, method === 'GET' ? undefined : {})).status,
      ).toBe(401);
  });

  it('sees how many and how much, and nothing of what is written, and no names of people', async () => {
    const { slug, admin, id } = await aSchool();
    const at = await aClass(server, admin, 'Secret sitting');
    const join = joiner(server, at);
    const wren = await join('Wrenna');
    await join('Odo');
    await admin.send('PATCH', `/api/lessons/${at.lesson.id}`, { title: 'Secret lesson' });
    const mark = aText({
      id: crypto.randomUUID(),
      page: at.pages[0]!.id,
      author: at.me,
      text: 'Secret text',
    });
    await at.live.submit(at.sitting, [{ do: 'add', mark }]);
    await admin.send('POST', `/api/lessons/${at.lesson.id}/pictures`, pictureForm());
    await colleagueOf(server, admin, 'Zelda');
    const figures = await schoolOf(operator, slug);
    const pdf = (await pdfWith([300, 200], [200, 300])).length;
    expect(figures).toMatchObject({
      ...{ id, slug, teachers: 2, admins: 1, lessons: 1, classes: 1, students: 2, running: 1 },
      ...{ closedAt: null, maxBytes: null, maxTeachers: null, signIn: null },
    });
    expect(figures.bytes).toBeGreaterThan(pdf - 300);
    expect(figures.usedAt).toBeGreaterThan(Date.now() - 60_000);
    const told = JSON.stringify(await figuresOf(operator));
    for (const secret of ['Secret', 'Wrenna', 'Odo', 'Zelda', 'Ada', ADA.email, 'head', wren.id, at.code])
      expect(told).not.toContain(secret);
  });

  it.each([
    [{ name: ' ' }, 'school-name'],
    [{ slug: 'No Spaces' }, 'school-slug'],
    [{ slug: '-north' }, 'school-slug'],
    [{ adminEmail: 'nowhere' }, 'email'],
    [{ adminName: '' }, 'teacher-name'],
  ])('is told what is wrong with a new school: %o', async (wrong, code) => {
    const fine = { name: 'North', slug: 'north-1', adminName: 'Nia', adminEmail: 'nia@north.example' };
    const { status, body } = await operator.send('POST', '/api/installation/schools', { ...fine, ...wrong });
    expect([status, body.code]).toEqual([400, code]);
    expect((await figuresOf(operator)).schools.some(({ slug }) => slug === 'north-1')).toBe(false);
  });

  it('changes a school, which is told what was done, by whom', async () => {
    const { id, slug, admin } = await aSchool();
    expect((await change(id, { maxTeachers: 0 })).body.code).toBe('school-room');
    for (const taken of ['school', 'Installation'])
      expect((await change(id, { slug: taken })).body.code).toBe('slug-taken');
    expect((await change(id, { slug })).status).toBe(204);
    const signIn = { issuer: 'https://accounts.school.example', clientId: 'doodla', trustEmail: false };
    expect((await change(id, { signIn })).body.code).toBe('no-public-url');
    expect((await change(id, { name: 'Eastfield', maxTeachers: 3 })).status).toBe(204);
    expect(await schoolOf(operator, slug)).toMatchObject({ name: 'Eastfield', maxTeachers: 3 });
    const { name, deeds } = await healthOf(admin);
    expect(name).toBe('Eastfield');
    expect(deeds.map(({ kind, by }) => [kind, by])).toEqual(
      expect.arrayContaining([
        ['made', OPERATOR.name],
        ['invited', OPERATOR.name],
        ['named', OPERATOR.name],
        ['given', OPERATOR.name],
      ]),
    );
    expect((await healthOf(ada)).deeds).toEqual([]);
  });
});

describe('what the installation gives a school', () => {
  it('is room for so many bytes: no file comes in above it, and other schools go on', async () => {
    const { id, admin } = await aSchool();
    const pdf = await pdfWith([300, 200]);
    const { lesson } = await admin.upload('first.pdf', pdf);
    const { bytes } = await healthOf(admin);
    expect(bytes).toBe(pdf.length);
    // A file that is larger than what is left of it is refused as it comes.
    await change(id, { maxBytes: bytes + 100 });
    expect((await admin.upload('second.pdf', pdf)).code).toBe('school-full');
    await change(id, { maxBytes: bytes });
    expect((await admin.upload('third.pdf', pdf)).code).toBe('school-full');
    const picture = await admin.send('POST', `/api/lessons/${lesson!.id}/pictures`, pictureForm());
    expect(picture.body.code).toBe('school-full');
    expect((await admin.send('POST', '/api/shelf/pictures', pictureForm())).body.code).toBe('school-full');
    const copy = await admin.send('POST', `/api/lessons/${lesson!.id}/copies`, { title: 'Again' });
    expect(copy.body.code).toBe('school-full');
    expect(await healthOf(admin)).toMatchObject({ bytes, maxBytes: bytes });
    expect((await ada.upload('other.pdf', pdf)).lesson).toBeDefined();
    await change(id, { maxBytes: null });
    expect((await admin.upload('second.pdf', pdf)).lesson).toBeDefined();
  });

  it('is places for so many teachers, counted when one is invited and when one comes', async () => {
    const { id, admin } = await aSchool();
    const invite = (name: string) =>
      admin.send<InvitationReply & { code?: string }>('POST', '/api/school/invitations', {
        name,
        email: `${name.toLowerCase()}@somewhere.example`,
      });
    const [bea, cleo] = [await invite('Bea'), await invite('Cleo')];
    await change(id, { maxTeachers: 2 });
    await accepted(server, tokenOf(bea.body), { name: 'Bea' });
    expect((await invite('Dan')).body.code).toBe('too-many-teachers');
    const late = await new Client(server.url).send('POST', `/api/invitations/${tokenOf(cleo.body)}`, {
      name: 'Cleo',
      password: ADA.password,
    });
    expect([late.status, late.body.code]).toEqual([409, 'too-many-teachers']);
    expect((await schoolOf(operator, `school-${count}`)).teachers).toBe(2);
  });
});

describe('a school that is closed', () => {
  it('lets nobody in, until it is opened, and everything is there again', async () => {
    const { id, slug, email, admin } = await aSchool();
    const at = await aClass(server, admin);
    const made = await admin.send<{ url: string; id: string }>('POST', `/api/lessons/${at.lesson.id}/links`, {
      ...{ title: 'Pages', mayDownload: false },
    });
    const page = new FormData();
    page.append('file', new Blob(['<!doctype html><p>Pages</p>']), 'pages.html');
    await admin.send('PUT', `/api/links/${made.body.id}/pages`, page);
    const link = `/api/shared/${made.body.url.split('/see/')[1]}`;
    const anybody = new Client(server.url);
    expect((await anybody.send('GET', link)).status).toBe(200);
    const standing = await admin.send<InvitationReply>('POST', '/api/school/invitations', {
      ...{ name: 'Late', email: 'late@somewhere.example' },
    });

    expect((await change(id, { closed: true })).status).toBe(204);
    expect((await admin.send<Me>('GET', '/api/me')).body.teacher).toBeNull();
    const signIn = (who: Client) => who.send('POST', '/api/sign-in', { email, password: ADA.password });
    expect((await signIn(admin)).body.code).toBe('school-closed');
    expect((await anybody.send('POST', '/api/sign-in', { email, password: 'wrong-board' })).body.code).toBe(
      'wrong-sign-in',
    );
    expect((await askIn(server, at, 'Wren')).body.code).toBe('school-closed');
    expect((await anybody.send('GET', link)).body.code).toBe('school-closed');
    expect((await anybody.send('GET', `/api/schools/${slug}/door`)).body.code).toBe('school-closed');
    const late = await anybody.send('POST', `/api/invitations/${tokenOf(standing.body)}`, {
      ...{ name: 'Late', password: ADA.password },
    });
    expect(late.body.code).toBe('school-closed');
    expect((await ada.send<Me>('GET', '/api/me')).body.teacher).not.toBeNull();

    await change(id, { closed: false });
    expect((await signIn(admin)).status).toBe(204);
    expect((await admin.send('GET', `/api/lessons/${at.lesson.id}`)).status).toBe(200);
    expect((await askIn(server, at, 'Wren')).status).toBe(201);
    expect((await anybody.send('GET', link)).status).toBe(200);
  });

  it('can be taken away for good, by its typed name, and nothing of it is left, nor anything of others gone', async () => {
    // Words of files go with the files, a day later.
    const others = ['gone_file', 'printed_words', 'cleared', 'school_cleared', 'lease', 'process', 'session'];
    const rows = async () => {
      await server.app.get(SearchIndexService).settled();
      const counts: Record<string, number> = {};
      for (const name of await tablesOf(server)) {
        if (others.includes(name)) continue;
        const [row] = await server.app
          .get(Database)
          .all<{ n: number }>(`SELECT count(*) AS n FROM "${name}"`);
        counts[name] = row!.n;
      }
      return counts;
    };
    const before = await rows();
    const { id, slug, admin } = await aSchool();
    const at = await aClass(server, admin);
    await joiner(server, at)('Wren');
    const mark = aText({ id: crypto.randomUUID(), page: at.pages[0]!.id, author: at.me, text: 'Keystone' });
    await at.live.submit(at.sitting, [{ do: 'add', mark }]);
    await admin.send('POST', `/api/lessons/${at.lesson.id}/pictures`, pictureForm());
    await admin.send('POST', '/api/shelf/pictures', pictureForm());
    await admin.send('POST', '/api/groups', { title: '8 Heron', names: ['Wren'] });
    await colleagueOf(server, admin, 'Yan');
    expect(await rows()).not.toEqual(before);

    const erase = (name: string) => operator.send('POST', `/api/installation/schools/${id}/erase`, { name });
    expect((await erase(`School ${slug}`)).body.code).toBe('school-is-open');
    await change(id, { closed: true });
    expect((await erase('School')).body.code).toBe('other-school-name');
    expect((await schoolOf(operator, slug)).lessons).toBe(1);
    expect((await erase(`School ${slug}`)).status).toBe(204);
    expect(await rows()).toEqual(before);
    expect((await figuresOf(operator)).schools.map((school) => school.slug)).not.toContain(slug);
    const first = await schoolOf(operator, 'school');
    await change(first.id, { closed: true });
    const stays = await operator.send('POST', `/api/installation/schools/${first.id}/erase`, { name: '' });
    expect(stays.body.code).toBe('first-school-stays');
    await change(first.id, { closed: false });
  });
});

describe('an invitation', () => {
  it('says for what it is, and gives whoever looks after the installation a new password', async () => {
    const door = async (token: string) =>
      (await new Client(server.url).send<InvitationDoor>('GET', `/api/invitations/${token}`)).body;
    const { admin, slug } = await aSchool();
    const { body } = await admin.send<InvitationReply>('POST', '/api/school/invitations', {
      ...{ name: 'Bea', email: 'bea@bea.example' },
    });
    expect(await door(tokenOf(body))).toMatchObject({ school: `School ${slug}`, isReset: false });
  });
});
