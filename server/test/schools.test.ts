import type { Colleague, SchoolHealth, SchoolTeacher, ShelfThing, SignInReply } from '@doodla/core';
import { INSTALLATION } from '@doodla/core';
import fc from 'fast-check';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { PurgeService } from '../src/lessons/purge.service.js';
import { Database } from '../src/storage/database.js';
import type { TestClass } from './helpers/aClass.js';
import { aClass } from './helpers/aClass.js';
import { pdfWith } from './helpers/pdfs.js';
import { anotherSchool, OPERATOR, operatorOf, schoolOf } from './helpers/schools.js';
import type { TestServer } from './helpers/server.js';
import { ADA, Client, colleagueOf, signedIn, startServer } from './helpers/server.js';

const DAY_MS = 24 * 3600 * 1000;
let server: TestServer;
let operator: Client;
/** Two schools: the first, and another one. */
let here: Client;
let there: Client;
let at: TestClass;

beforeAll(async () => {
  server = await startServer();
  here = await signedIn(server);
  operator = await operatorOf(server);
  // The same address and password as at the first school, as teachers of two schools have them.
  ({ admin: there } = await anotherSchool(server, operator, 'north', {
    name: 'Ada North',
    email: ADA.email,
  }));
  at = await aClass(server, here);
});
afterAll(() => server.remove());

const teachers = async (who: Client) => (await who.send<SchoolTeacher[]>('GET', '/api/school/teachers')).body;
const colleagues = async (who: Client) => (await who.send<Colleague[]>('GET', '/api/school/colleagues')).body;
const limitsOf = async (who: Client) => (await who.send<SchoolHealth>('GET', '/api/school/health')).body;
const LIMITS = { maxUploadMb: 100, maxPages: 500, retentionDays: 180, tellOfRecording: false };

describe('teachers of two schools', () => {
  it('know nothing of each other: neither lists nor colleagues, and no name can be had by its id', async () => {
    const bea = await colleagueOf(server, here, 'Bea');
    expect((await teachers(here)).map(({ name }) => name)).toEqual([ADA.name, 'Bea']);
    expect((await teachers(there)).map(({ name }) => name)).toEqual(['Ada North']);
    expect((await colleagues(bea)).map(({ name }) => name)).toEqual([ADA.name]);
    expect(await colleagues(there)).toEqual([]);
    const beaId = (await teachers(here))[1]!.id;
    const north = (await teachers(there))[0]!.id;
    for (const [method, path, body] of [
      ['POST', `/api/school/teachers/${beaId}/reset`, undefined],
      ['PATCH', `/api/school/teachers/${beaId}`, { admin: true }],
      ['POST', `/api/school/teachers/${beaId}/leave`, { to: north }],
    ] as const)
      expect([path, (await there.send(method, path, body)).status]).toEqual([path, 404]);
    // What a teacher leaves goes to nobody of another school.
    expect((await here.send('POST', `/api/school/teachers/${beaId}/leave`, { to: north })).status).toBe(404);
    expect((await teachers(here)).map(({ name }) => name)).toEqual([ADA.name, 'Bea']);
  });

  it('give each other nothing, work on nothing together, and share no shelf', async () => {
    const north = (await teachers(there))[0]!.id;
    const lesson = `/api/lessons/${at.lesson.id}`;
    expect((await here.send('POST', `${lesson}/copies-for`, { to: north })).status).toBe(404);
    const team = await here.send('PUT', `${lesson}/team`, { teachers: [north] });
    expect([team.status, team.body.code]).toEqual([404, 'no-such-colleague']);
    const { body: thing } = await here.send<ShelfThing>('POST', '/api/shelf/things', {
      lesson: at.lesson.id,
      pages: [at.pages[0]!.id],
      title: 'Arches',
      folder: '',
    });
    await here.send('PATCH', `/api/shelf/things/${thing.id}`, { shared: true });
    const shared = async (who: Client) =>
      (await who.send<ShelfThing[]>('GET', '/api/shelf/things?of=school&words=')).body.map(
        ({ title }) => title,
      );
    expect(await shared(here)).toEqual(['Arches']);
    expect(await shared(await colleagueOf(server, here, 'Cleo'))).toEqual(['Arches']);
    expect(await shared(there)).toEqual([]);
    const { lesson: own } = await there.upload('own.pdf', await pdfWith([200, 200]));
    const use = await there.send('POST', `/api/shelf/things/${thing.id}/uses`, { lesson: own!.id });
    const look = await there.send('GET', `/api/shelf/things/${thing.id}/picture`);
    expect([use.status, look.status]).toEqual([404, 404]);
  });

  it('may have the same address at both: whoever signs in says which of their places they want', async () => {
    const signIn = (more: object = {}, who = new Client(server.url)) =>
      who.send<SignInReply & { code?: string }>('POST', '/api/sign-in', {
        ...{ email: ADA.email, password: ADA.password },
        ...more,
      });
    const asked = await signIn();
    expect(asked.status).toBe(200);
    expect(asked.headers.getSetCookie()).toEqual([]);
    expect(asked.body.schools.map(({ name }) => name)).toEqual(['', 'School north']);
    const who = new Client(server.url);
    expect((await signIn({ school: asked.body.schools[1]!.id }, who)).status).toBe(204);
    expect((await teachers(who)).map(({ name }) => name)).toEqual(['Ada North']);
    expect((await signIn({ school: 'NORTH' }, who)).status).toBe(204);
    expect((await signIn({ school: INSTALLATION })).body.code).toBe('wrong-sign-in');
    expect((await signIn({ password: 'another-board' })).body.code).toBe('wrong-sign-in');
    expect(
      (await signIn({ email: OPERATOR.email, password: OPERATOR.password, school: 'north' })).status,
    ).toBe(401);
  });

  it('bring in as much as their own school lets them', async () => {
    const set = (who: Client, limits: object) =>
      who.send('PUT', '/api/school/limits', { ...LIMITS, ...limits });
    expect((await set(there, { maxPages: 1, maxUploadMb: 3 })).status).toBe(204);
    const two = await pdfWith([200, 200], [200, 200]);
    expect((await there.upload('two.pdf', two)).code).toBe('too-many-pages');
    expect((await here.upload('two.pdf', two)).lesson).toBeDefined();
    expect(await limitsOf(here)).toMatchObject(LIMITS);
    expect(await limitsOf(there)).toMatchObject({ maxPages: 1, maxUploadMb: 3, name: 'School north' });
    await set(there, {});
  });

  it('have their classes kept as long as their own school keeps them, and are told what went', async () => {
    const other = await aClass(server, there);
    const end = (who: Client, { sitting }: TestClass) =>
      who.send('POST', `/api/sittings/${sitting.id}/end`, { title: 'Over', drop: false });
    await end(there, other);
    await end(here, at);
    await there.send('PUT', '/api/school/limits', { ...LIMITS, retentionDays: 10 });
    const dropped = async () => {
      const rows = await server.app
        .get(Database)
        .all<{ id: string }>('SELECT id FROM sitting WHERE dropped_at IS NOT NULL');
      return rows.map(({ id }) => id);
    };
    await server.app.get(PurgeService).purge(Date.now() + 11 * DAY_MS);
    expect(await dropped()).toEqual([other.sitting.id]);
    await server.app.get(PurgeService).purge(Date.now() + 13 * DAY_MS);
    expect((await limitsOf(there)).cleared).toMatchObject([
      { classes: 1, lessons: 0, files: null, bytes: null },
    ]);
    expect((await limitsOf(here)).cleared).toEqual([]);
    const { body } = await here.send('GET', `/api/sittings/${at.sitting.id}`);
    expect(body).toMatchObject({ id: at.sitting.id });
  });
});

describe('schools', () => {
  /** Which school somebody comes to, and what they are called: nobody is ever listed in another one. */
  it('each list exactly those who came to them, in whatever order people come, go and move', async () => {
    const slugs = ['east', 'south', 'west'];
    const admins = new Map<string, Client>();
    for (const slug of slugs)
      admins.set(
        slug,
        (await anotherSchool(server, operator, slug, { name: 'Head', email: `${slug}@head.example` })).admin,
      );
    const listed = new Map(slugs.map((slug) => [slug, ['Head']]));
    let n = 0;
    const step = fc.record({ slug: fc.constantFrom(...slugs), does: fc.constantFrom('come', 'go', 'look') });
    await fc.assert(
      fc.asyncProperty(fc.array(step, { minLength: 1, maxLength: 4 }), async (steps) => {
        for (const { slug, does } of steps) {
          const admin = admins.get(slug)!;
          const names = listed.get(slug)!;
          if (does === 'come') {
            const name = `T${(n += 1)}`;
            await colleagueOf(server, admin, name);
            names.push(name);
          } else if (does === 'go' && names.length > 1) {
            const [head, last] = [(await teachers(admin))[0]!, (await teachers(admin)).at(-1)!];
            await admin.send('POST', `/api/school/teachers/${last.id}/leave`, { to: head.id });
            names.pop();
          }
          for (const each of slugs) {
            expect((await teachers(admins.get(each)!)).map(({ name }) => name)).toEqual(listed.get(each));
            expect((await schoolOf(operator, each)).teachers).toBe(listed.get(each)!.length);
          }
        }
      }),
      { numRuns: 8 },
    );
  });
});
