import type { Seat } from '@doodla/core';
import { LIVE } from '@doodla/core';
import { Queue } from 'bullmq';
import { Redis } from 'ioredis';
import { afterAll, beforeAll, describe, expect, it, vi } from 'vitest';
import { LiveClient, strokeBy } from './helpers/live.js';
import { pdfWith } from './helpers/pdfs.js';
import type { ServerProcess } from './helpers/processes.js';
import { Jobs } from '../src/processes/jobs.js';
import { readSettings } from '../src/settings/settings.js';
import { CAN_SHARE, Installation, Line, queried, REDIS } from './helpers/processes.js';
import { anotherSchool, operatorSession } from './helpers/schools.js';
import { ADA, Client } from './helpers/server.js';
import type { Place } from './helpers/writingClass.js';
import { firstTeacher, openClass, Writer, writingThrough } from './helpers/writingClass.js';

/** Longer than what is not in use is kept in hand. */
const LONG_UNUSED_MS = 6000;
const SOON = { timeout: 90_000, interval: 50 };

describe.skipIf(!CAN_SHARE)('two processes', () => {
  let school: Installation;
  let one: ServerProcess;
  let other: ServerProcess;
  let front: Line;
  let teacher: Client;
  let place: Place;
  /** As the teacher, at the other process. */
  let there: Client;
  beforeAll(async () => {
    const metrics = { DOODLA_METRICS_TOKEN: 'a-long-enough-token' };
    school = await Installation.create({ DOODLA_LOG_JSON: '1', ...metrics });
    [one, other] = [await school.start(), await school.start()];
    front = await Line.to(one.port, other.port);
    teacher = await firstTeacher(one.url);
    place = await openClass(one.url, teacher);
    there = new Client(other.url);
    there.cookie = teacher.cookie;
  });
  afterAll(async () => {
    front.close();
    await school.remove();
  });

  it('show one class as one, whichever of them somebody comes to', async () => {
    const { url } = front;
    await writingThrough({ url, place, database: school.database }, () => Promise.resolve());
  });

  it('count seats and hands together, and what the teacher sets at one counts at the other', async () => {
    const held = await LiveClient.connect(one.url, { cookie: teacher.cookie, about: place.lesson });
    await held.open({ kind: 'sitting', id: place.sitting });
    await held.enter({ kind: 'sitting', id: place.sitting });
    const seats = await Promise.all(
      [one, other, one, other].map(async ({ url }, i) => {
        const asked = { code: place.code, name: `Seat ${i}` };
        const { body } = await new Client(url).send<Seat>('POST', '/api/join', asked);
        const about = place.lesson;
        return { ...body, live: await LiveClient.connect(url, { token: body.token, about }) };
      }),
    );
    expect(new Set(seats.map(({ student }) => student.colour)).size).toBe(4);
    const names = () => held.classState?.people.filter(({ here }) => here).map(({ name }) => name) ?? [];
    await vi.waitUntil(() => seats.every((_, i) => names().includes(`Seat ${i}`)), SOON);
    await there.send('PATCH', `/api/sittings/${place.sitting}`, { title: 'Fractions' });
    await held.ask('pens', { sitting: place.sitting, up: false });
    const first = seats[1]!;
    const log = { kind: 'sitting', id: place.sitting } as const;
    await first.live.open(log);
    const mark = strokeBy(first.student.id, place.page.id);
    expect((await first.live.submit(log, [{ do: 'add', mark }])).error?.code).toBe('pens-down');
    await held.ask('pens', { sitting: place.sitting, up: true });
    for (const { live } of seats) live.close();
    held.close();
  });

  it('have one that lets in who waits at the other', async () => {
    await teacher.send('POST', `/api/sittings/${place.sitting}/door`, { nodding: true });
    const { body: asked } = await new Client(other.url).send<{ ask: string }>('POST', '/api/join', {
      code: place.code,
      name: 'Mo',
    });
    const held = await LiveClient.connect(one.url, { cookie: teacher.cookie, about: place.lesson });
    const { asks } = await held.enter({ kind: 'sitting', id: place.sitting });
    const waiting = asks.find(({ name }) => name === 'Mo')!;
    await there.send('POST', `/api/sittings/${place.sitting}/asks/${waiting.id}`, { grant: true });
    for (const { url } of [one, other]) {
      const path = `/api/join/asks/${asked.ask}?code=${place.code}`;
      const { body, status } = await new Client(url).send<Seat>('GET', path);
      // It is given out once.
      if (url === one.url) expect(body.student.name).toBe('Mo');
      else expect(status).toBe(404);
    }
    await teacher.send('POST', `/api/sittings/${place.sitting}/door`, { nodding: false });
    held.close();
  });

  it('put somebody out at both who signs out at one', async () => {
    const signedIn = new Client(one.url);
    await signedIn.send('POST', '/api/sign-in', { email: ADA.email, password: ADA.password });
    const live = await LiveClient.connect(other.url, { cookie: signedIn.cookie });
    const out = new Promise((resolve) => live.socket.once(LIVE.out, resolve));
    await signedIn.send('POST', '/api/sign-out');
    await out;
    live.close();
  });

  it('count wrong passwords together', async () => {
    const wrong = { email: 'nobody@school.example', password: 'not-the-password' };
    const codes: string[] = [];
    for (let i = 0; i < 12; i++) {
      const { url } = i % 2 === 0 ? one : other;
      codes.push((await new Client(url).send('POST', '/api/sign-in', wrong)).body.code);
    }
    expect(codes).toEqual([
      ...Array<string>(10).fill('wrong-sign-in'),
      'too-many-passwords',
      'too-many-passwords',
    ]);
  });

  it('hear of limits that one of them is told', async () => {
    const limits = { maxUploadMb: 77, maxPages: 300, retentionDays: 90, tellOfRecording: false };
    expect((await teacher.send('PUT', '/api/school/limits', limits)).status).toBeLessThan(300);
    await vi.waitUntil(async () => {
      const { body } = await there.send<{ maxUploadMb: number }>('GET', '/api/school/health');
      return body.maxUploadMb === 77;
    }, SOON);
  });

  it('know a school at once that is made at one, and nobody of it is let in at either when it is closed', async () => {
    const operator = new Client(one.url);
    operator.cookie = `doodla=${await operatorSession((text, values) => queried(school.database, text, values))}`;
    const { id, admin } = await anotherSchool(one, operator, 'north', {
      name: 'Nia',
      email: 'nia@north.example',
    });
    const elsewhere = new Client(other.url);
    const signIn = { email: 'nia@north.example', password: ADA.password };
    expect((await elsewhere.send('POST', '/api/sign-in', signIn)).status).toBe(204);
    const limits = { maxUploadMb: 9, maxPages: 300, retentionDays: 90, tellOfRecording: false };
    await admin.send('PUT', '/api/school/limits', limits);
    const told = async (who: Client) =>
      (await who.send<{ maxUploadMb: number }>('GET', '/api/school/health')).body.maxUploadMb;
    await vi.waitUntil(async () => (await told(elsewhere)) === 9, SOON);
    expect(await told(there)).toBe(77);
    const north = await openClass(one.url, admin);
    const live = await LiveClient.connect(other.url, { cookie: elsewhere.cookie });
    const out = new Promise((resolve) => live.socket.once(LIVE.out, resolve));
    await operator.send('PATCH', `/api/installation/schools/${id}`, { closed: true });
    await out;
    live.close();
    for (const { url } of [one, other]) {
      const anybody = new Client(url);
      expect((await anybody.send('POST', '/api/sign-in', signIn)).body.code).toBe('school-closed');
      const join = await anybody.send('POST', '/api/join', { code: north.code, name: 'Wren' });
      expect(join.body.code).toBe('school-closed');
    }
    expect((await there.send('GET', `/api/lessons/${place.lesson}`)).status).toBe(200);
    // Taken away at the process that does not have its lessons in hand.
    const away = new Client(other.url);
    away.cookie = operator.cookie;
    const erase = { name: 'School north' };
    expect((await away.send('POST', `/api/installation/schools/${id}/erase`, erase)).status).toBe(204);
    const left = await queried(school.database, 'SELECT id FROM lesson WHERE id = $1', [north.lesson]);
    expect(left).toEqual([]);
    const logs = await queried(school.database, 'SELECT id FROM log WHERE id = $1', [north.sitting]);
    expect(logs).toEqual([]);
  });

  it('copy a page into a lesson that the other has in hand', async () => {
    const elsewhere = await openClass(other.url, there);
    const writer = await Writer.join(other.url, elsewhere, 'Noor');
    const { body } = await teacher.send<{ page: string }>(
      'POST',
      `/api/lessons/${place.lesson}/pages/${place.page.id}/copies`,
      { to: elsewhere.lesson },
    );
    expect(body).toMatchObject({ page: expect.any(String) as string });
    // Whoever is there comes back by themselves.
    const live = await LiveClient.connect(one.url, { cookie: teacher.cookie, about: elsewhere.lesson });
    const { pages } = await live.open({ kind: 'lesson', id: elsewhere.lesson });
    expect(pages?.map(({ id }) => id)).toContain(body.page);
    writer.begin();
    await vi.waitUntil(() => writer.written.length > 3, SOON);
    await writer.end();
    writer.close();
    live.close();
  });

  it('draw a lesson to where people connect for it, and let it go when nobody is', async () => {
    const { lesson: made } = await teacher.upload('lesson.pdf', await pdfWith([300, 200]));
    const lesson = made!.id;
    expect(await school.holderOf(lesson)).toBe(one);
    const live = await LiveClient.connect(other.url, { cookie: teacher.cookie, about: lesson });
    await live.open({ kind: 'lesson', id: lesson });
    expect(await school.holderOf(lesson)).toBe(other);
    // Somebody is there now, so whoever comes to the first is passed on.
    const second = await LiveClient.connect(one.url, { cookie: teacher.cookie, about: lesson });
    await second.open({ kind: 'lesson', id: lesson });
    expect(await school.holderOf(lesson)).toBe(other);
    live.close();
    second.close();
    await vi.waitUntil(async () => (await holders(lesson)).length === 0, SOON);
  });

  it('give an archive to whoever comes for it at either, though it took long to make', async () => {
    const { lesson } = await openClass(one.url, teacher);
    const { body } = await teacher.send<string>('POST', `/api/lessons/${lesson}/archives`);
    const { archive } = JSON.parse(body.trim().split('\n').at(-1)!) as { archive: string };
    await new Promise((resolve) => setTimeout(resolve, LONG_UNUSED_MS));
    expect((await there.send('GET', `/api/lessons/${lesson}/archives/${archive}`)).status).toBe(200);
  });

  it('believe nobody else that a request was passed on, and name it the same at both', async () => {
    const headers = { 'x-doodla-peer': 'guessed', 'x-doodla-client': '10.9.8.7' };
    const path = `/api/processes/leases/${place.lesson}/handover?to=${place.lesson}`;
    expect((await there.send('POST', path, {}, headers)).status).toBe(404);
    const named = await there.send('GET', `/api/lessons/${place.lesson}`, undefined, {
      'x-request-id': 'mine',
    });
    expect(named.status).toBe(200);
    // Where no proxy stands before it, whoever asks does not name it.
    expect(named.headers.get('x-request-id')).toMatch(/^[\da-f-]{36}$/);
  });

  it('tell figures of their own', async () => {
    const figures = await fetch(`${other.url}/metrics`, {
      headers: { authorization: 'Bearer a-long-enough-token' },
    });
    const text = await figures.text();
    for (const name of ['doodla_lessons_held', 'doodla_jobs_waiting', 'doodla_wet_ink_seconds_count'])
      expect(text).toMatch(new RegExp(`^${name} \\d`, 'm'));
  });

  it('turn documents into pages together', async () => {
    const texts = Array.from({ length: 6 }, (_, i) => new TextEncoder().encode(`# Text ${i}`));
    const made = await Promise.all(texts.map((text, i) => teacher.upload(`text ${i}.md`, text)));
    expect(made.every(({ lesson }) => lesson !== undefined)).toBe(true);
    const { pathname } = new URL(school.database);
    const connection = new Redis(REDIS!, { maxRetriesPerRequest: null });
    const queue = new Queue('doodla-conversions', { connection, prefix: `doodla:${pathname.slice(1)}` });
    const done = await queue.getCompleted();
    expect(done).toHaveLength(6);
    expect(new Set(done.map(({ processedBy }) => processedBy)).size).toBe(2);
    await queue.close();
    connection.disconnect();
  });

  it('do a job once, whichever of them does it', async () => {
    const done: string[] = [];
    const jobs = ['one', 'other'].map((name) => {
      const made = new Jobs(
        readSettings({ DOODLA_DATABASE: `${school.database}_jobs`, DOODLA_REDIS: REDIS }),
      );
      made.every('tidy', 500, () => Promise.resolve(void done.push(name)));
      return made;
    });
    await Promise.all(jobs.map((each) => each.onApplicationBootstrap()));
    const began = performance.now();
    await vi.waitUntil(() => done.length >= 6, SOON);
    // Twice as often, if each did it by itself.
    expect((performance.now() - began) / done.length).toBeGreaterThan(350);
    await Promise.all(jobs.map((each) => each.onModuleDestroy()));
  });

  const holders = (lesson: string) =>
    queried<{ holder: string }>(
      school.database,
      'SELECT holder FROM lease WHERE lesson = $1 AND holder IS NOT NULL',
      [lesson],
    );
});
