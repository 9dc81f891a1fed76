import { createCanvas } from '@napi-rs/canvas';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { PictureMark, StrokeMark } from '@doodla/core';
import { LiveClient, strokeBy } from './helpers/live.js';
import { pdfWith } from './helpers/pdfs.js';
import type { TestServer } from './helpers/server.js';
import { Client, signedIn, startServer } from './helpers/server.js';

let server: TestServer;
let teacher: Client;

beforeAll(async () => {
  server = await startServer();
  teacher = await signedIn(server);
});
afterAll(() => server.remove());

const png = () => createCanvas(8, 6).toBuffer('image/png');

function form(bytes: Uint8Array): FormData {
  const data = new FormData();
  data.append('file', new Blob([bytes as Uint8Array<ArrayBuffer>]), 'stamp');
  return data;
}

describe('own stamps', () => {
  it('are kept, given back and taken away, for their teacher alone', async () => {
    const { status, body } = await teacher.send<{ id: string }>('POST', '/api/shelf/pictures', form(png()));
    expect(status).toBe(201);
    const listed = await teacher.send<{ id: string }[]>('GET', '/api/shelf/pictures');
    expect(listed.body).toEqual([{ id: body.id }]);
    const file = `/api/shelf/pictures/${body.id}/file`;
    expect((await teacher.send('GET', file)).headers.get('content-type')).toBe('image/png');
    expect((await new Client(server.url).send('GET', file)).status).toBe(401);
    expect((await teacher.send('DELETE', `/api/shelf/pictures/${body.id}`)).status).toBe(204);
    expect((await teacher.send('GET', file)).status).toBe(404);
  });

  it('that are no pictures are refused with a sentence', async () => {
    const { status, body } = await teacher.send('POST', '/api/shelf/pictures', form(Buffer.from('<svg/>')));
    expect([status, body.code]).toEqual([415, 'not-a-picture']);
  });
});

describe('settings of a teacher', () => {
  it('are kept from one computer to the next', async () => {
    const keys = { pen: 'Q' };
    expect((await teacher.send('GET', '/api/preferences/shortcuts')).body).toEqual({ value: {} });
    expect((await teacher.send('PUT', '/api/preferences/shortcuts', { value: keys })).status).toBe(204);
    expect((await teacher.send('GET', '/api/preferences/shortcuts')).body).toEqual({ value: keys });
  });

  it('are no general store', async () => {
    const hand = { samples: [{ character: 'a', strokes: [Array.from({ length: 100 }, () => 12.3)] }] };
    expect((await teacher.send('PUT', '/api/preferences/hand', { value: hand })).status).toBe(204);
    expect((await teacher.send('GET', '/api/preferences/hand')).body).toEqual({ value: hand });
    expect((await teacher.send('PUT', '/api/preferences/anything', { value: {} })).status).toBe(404);
    const much = { value: { pen: 'x'.repeat(20_000) } };
    expect((await teacher.send('PUT', '/api/preferences/shortcuts', much)).status).toBe(413);
    expect((await teacher.send('PUT', '/api/preferences/shortcuts', { value: 3 })).status).toBe(400);
  });
});

describe('a page for another lesson', () => {
  it('takes its document, its marks and those of a class along, and is seen there at once', async () => {
    const from = (await teacher.upload('from.pdf', await pdfWith([300, 200]))).lesson!.id;
    const to = (await teacher.upload('to.pdf', await pdfWith([300, 200]))).lesson!.id;
    const live = await LiveClient.connect(server.url, { cookie: teacher.cookie });
    const opened = await live.open({ kind: 'lesson', id: from });
    const page = opened.pages![0]!.id;
    const { id: author } = opened.actor;
    await live.submit({ kind: 'lesson', id: from }, [{ do: 'add', mark: strokeBy(author, page) }]);
    const { body: picture } = await teacher.send<{ id: string }>(
      'POST',
      `/api/lessons/${from}/pictures`,
      form(png()),
    );
    const { body: sitting } = await teacher.send<{ id: string }>('POST', `/api/lessons/${from}/sittings`, {
      title: 'Today',
    });
    await live.open({ kind: 'sitting', id: sitting.id });
    const { points, pressure, ...common } = strokeBy(author, page) as StrokeMark;
    expect([points.length, pressure]).toEqual([8, false]);
    const mark: PictureMark = {
      ...common,
      kind: 'picture',
      material: picture.id,
      crop: { x: 0, y: 0, width: 1, height: 1 },
      x: 10,
      y: 10,
      width: 80,
      height: 60,
      rotation: 0,
      flip: false,
      style: { opacity: 1 },
    };
    expect(
      (await live.submit({ kind: 'sitting', id: sitting.id }, [{ do: 'add', mark }])).error,
    ).toBeUndefined();
    await live.open({ kind: 'lesson', id: to });

    const copies = `/api/lessons/${from}/pages/${page}/copies`;
    const { status, body } = await teacher.send<{ page: string }>('POST', copies, {
      to,
      sitting: sitting.id,
    });
    expect(status).toBe(201);
    await expect.poll(() => live.operations.some(({ log }) => log === to)).toBe(true);
    const snapshot = await live.snapshot({ kind: 'lesson', id: to });
    const marks = snapshot.marks.filter((each) => each.page === body.page);
    expect(marks.map(({ kind }) => kind).sort()).toEqual(['picture', 'stroke']);
    const copied = marks.find((each) => each.kind === 'picture')!;
    expect(copied.material).not.toBe(picture.id);
    expect((await teacher.send('GET', `/api/pictures/${copied.material}`)).status).toBe(200);
    live.close();
  });

  it('needs lessons of one’s own', async () => {
    const lesson = (await teacher.upload('from.pdf', await pdfWith([300, 200]))).lesson!.id;
    const nowhere = '00000000-0000-4000-8000-000000000000';
    const ask = (page: string, to: string) =>
      teacher.send('POST', `/api/lessons/${lesson}/pages/${page}/copies`, { to });
    expect((await ask('page', nowhere)).status).toBe(404);
    expect((await ask('no-such-page', lesson)).status).toBe(404);
    expect((await ask('page', 'not an id')).status).toBe(400);
    expect(
      (await new Client(server.url).send('POST', `/api/lessons/${lesson}/pages/p/copies`, {})).status,
    ).toBe(401);
  });
});
