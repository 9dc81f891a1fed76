import type { LogRef, Page } from '@doodla/core';
import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest';
import { DevicesService } from '../src/devices/devices.service.js';
import { aClass } from './helpers/aClass.js';
import { pdfWith } from './helpers/pdfs.js';
import { LiveClient, strokeBy } from './helpers/live.js';
import type { TestServer } from './helpers/server.js';
import { Client, signedIn, startServer } from './helpers/server.js';

interface Entered {
  kind: string;
  sitting: string;
  lesson: string;
  token: string;
  message: string;
  code: string;
}

let server: TestServer;
let teacher: Client;
let lesson: LogRef;
let sitting: LogRef;
let pages: Page[];
let live: LiveClient;
let me: string;

beforeAll(async () => {
  server = await startServer();
  teacher = await signedIn(server);
});
afterAll(() => server.remove());

beforeEach(async () => {
  ({ lesson, sitting, pages, live, me } = await aClass(server, teacher));
  return () => live.close();
});

const invite = async (kind: 'display' | 'pad') =>
  (
    await teacher.send<{ code: string; address: string }>('POST', `/api/sittings/${sitting.id}/devices`, {
      kind,
    })
  ).body;
const enter = (code: string) => new Client(server.url).send<Entered>('POST', '/api/devices', { code });

async function connected(kind: 'display' | 'pad'): Promise<LiveClient> {
  const { body } = await enter((await invite(kind)).code);
  const client = await LiveClient.connect(server.url, { token: body.token });
  await client.open(lesson);
  await client.open(sitting);
  await client.enter(sitting);
  return client;
}

describe('a display or pad', () => {
  it('comes in with a code that is good once', async () => {
    const { code, address } = await invite('pad');
    expect(address).toBe(`${server.url}/pad/${code}`);
    const first = await enter(` ${code.toLowerCase()} `);
    expect(first.body).toMatchObject({ kind: 'pad', sitting: sitting.id, lesson: lesson.id });
    const second = await enter(code);
    expect([second.status, second.body.code]).toEqual([409, 'used-code']);
    expect(second.body.message).toContain('new one');
    expect((await enter('NOSUCH')).body.code).toBe('wrong-device-code');
  });

  it('does not come in with a code that has ended, by time or with the class', async () => {
    const devices = server.app.get(DevicesService);
    const late = await devices.invite({ sittingId: sitting.id }, 'display', Date.now() - 16 * 60_000);
    expect((await enter(late.code)).body.code).toBe('old-code');
    const { code } = await invite('display');
    await teacher.send('POST', `/api/sittings/${sitting.id}/end`, { drop: false });
    expect((await enter(code)).status).toBe(410);
    const after = await teacher.send('POST', `/api/sittings/${sitting.id}/devices`, { kind: 'pad' });
    expect([after.status, after.body.code]).toEqual([409, 'ended-devices']);
  });

  it('writes as the teacher, turns pages, and is told of what others write', async () => {
    const pad = await connected('pad');
    expect(
      (await pad.submit(sitting, [{ do: 'add', mark: strokeBy(me, pages[0]!.id) }])).error,
    ).toBeUndefined();
    await expect.poll(() => live.operations.length).toBe(1);
    await pad.ask('turn', { sitting: sitting.id, page: pages[1]!.id });
    await expect.poll(() => live.classState?.page).toBe(pages[1]!.id);
    await live.submit(sitting, [{ do: 'add', mark: strokeBy(me, pages[1]!.id) }]);
    await expect.poll(() => pad.operations.length).toBe(1);
    pad.close();
  });

  it('is kept to its class: neither the lesson nor the teacher’s account are open to it', async () => {
    const { body } = await enter((await invite('display')).code);
    const bearer = { authorization: `Bearer ${body.token}` };
    const anyone = new Client(server.url);
    expect((await anyone.send('GET', '/api/lessons', undefined, bearer)).status).toBe(401);
    expect(
      (await anyone.send('POST', `/api/sittings/${sitting.id}/end`, { drop: true }, bearer)).status,
    ).toBe(401);
    const display = await LiveClient.connect(server.url, { token: body.token });
    await display.open(lesson);
    const refused = await display.submit(lesson, [
      { do: 'patchPage', page: pages[0]!.id, set: { removed: true } },
    ]);
    expect(refused.error?.code).toBe('not-allowed');
    const { lesson: another } = await teacher.upload('other.pdf', await pdfWith([50, 50]));
    const other = await teacher.send<{ id: string }>('POST', `/api/lessons/${another!.id}/sittings`, {
      title: 'Other',
    });
    expect((await display.open({ kind: 'sitting', id: other.body.id })).error?.code).toBe('not-found');
    const file = `/api/materials/${(pages[0]!.surface as { material: string }).material}/file`;
    expect((await anyone.send('GET', file, undefined, bearer)).status).toBe(200);
    display.close();
  });

  it('is seen by the teacher, is thrown out at once, and does not come back', async () => {
    const { body } = await enter((await invite('display')).code);
    const display = await LiveClient.connect(server.url, { token: body.token });
    const second = await connected('display');
    await expect.poll(() => live.classState?.devices.map(({ here }) => here)).toEqual([true, true]);
    let out = false;
    display.socket.on('out', () => (out = true));
    const { id } = live.classState!.devices[0]!;
    expect((await teacher.send('DELETE', `/api/sittings/${sitting.id}/devices/${id}`)).status).toBe(204);
    await expect.poll(() => [out, display.socket.connected]).toEqual([true, false]);
    await expect(LiveClient.connect(server.url, { token: body.token })).rejects.toThrow('sign-in');
    expect((await second.ask('turn', { sitting: sitting.id, page: pages[1]!.id })).error).toBeUndefined();
    second.close();
  });

  it('that sleeps is shown as away, and wakes where it was', async () => {
    const { body } = await enter((await invite('pad')).code);
    const pad = await LiveClient.connect(server.url, { token: body.token });
    await expect.poll(() => live.classState?.devices[0]?.here).toBe(true);
    pad.close();
    await expect.poll(() => live.classState?.devices[0]?.here).toBe(false);
    const awake = await LiveClient.connect(server.url, { token: body.token });
    expect((await awake.open(sitting)).actor).toMatchObject({ id: me, role: 'teacher' });
    awake.close();
  });
});
