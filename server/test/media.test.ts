import type { Page } from '@doodla/core';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { mediaType } from '../src/media/mediaType.js';
import { LiveClient } from './helpers/live.js';
import { pdfWith } from './helpers/pdfs.js';
import type { TestServer } from './helpers/server.js';
import { Client, signedIn, startServer } from './helpers/server.js';

const bytes = (...parts: (string | number)[]) =>
  Buffer.concat([
    ...parts.map((part) => (typeof part === 'string' ? Buffer.from(part, 'latin1') : Buffer.from([part]))),
    Buffer.alloc(128),
  ]);

/** Signatures as the WHATWG MIME Sniffing Standard lists them, §6.2. */
describe('what a recording is', () => {
  it.each([
    ['MP4', bytes(0, 0, 0, 24, 'ftypmp42'), 'video/mp4'],
    ['WebM', bytes(0x1a, 0x45, 0xdf, 0xa3), 'video/webm'],
    ['Ogg', bytes('OggS\0'), 'audio/ogg'],
    ['WAVE', bytes('RIFF', 36, 0, 0, 0, 'WAVE'), 'audio/wave'],
    ['MP3 with ID3', bytes('ID3'), 'audio/mpeg'],
    ['MP3 without', bytes(0xff, 0xfb, 0x90, 0x44), 'audio/mpeg'],
    ['FLAC (RFC 9639 §8)', bytes('fLaC'), 'audio/flac'],
    ['M4A', bytes(0, 0, 0, 24, 'ftypM4A '), 'audio/mp4'],
  ])('is seen by its first bytes: %s', (_, head, mime) => {
    expect(mediaType(head)?.mime).toBe(mime);
  });

  it.each([
    ['a PDF', bytes('%PDF-1.7')],
    ['HTML', bytes('<!doctype html>')],
    ['AVI, which browsers do not play', bytes('RIFF', 36, 0, 0, 0, 'AVI ')],
    ['nothing', Buffer.alloc(128)],
  ])('is not %s', (_, head) => {
    expect(mediaType(head)).toBeUndefined();
  });
});

describe('a sound or video file', () => {
  let server: TestServer;
  let teacher: Client;
  let lesson: string;

  beforeAll(async () => {
    server = await startServer({ DOODLA_MAX_UPLOAD_MB: '1' });
    teacher = await signedIn(server);
    lesson = (await teacher.upload('lesson.pdf', await pdfWith([300, 200], [200, 300]))).lesson!.id;
  });
  afterAll(() => server.remove());

  const pages = async (): Promise<Page[]> => {
    const live = await LiveClient.connect(server.url, { cookie: teacher.cookie });
    const { pages: all } = await live.open({ kind: 'lesson', id: lesson });
    live.close();
    return all!.sort((a, b) => (a.order < b.order ? -1 : 1));
  };
  const send = (content: Buffer, query = '') => {
    const form = new FormData();
    form.append('file', new Blob([content as Uint8Array<ArrayBuffer>]), 'crossing.webm');
    return teacher.send<{ page: string; code: string; message: string }>(
      'POST',
      `/api/lessons/${lesson}/media${query}`,
      form,
    );
  };

  it('becomes a page after the one that was asked for, in the shape of its picture, and is given back', async () => {
    const [first] = await pages();
    const file = bytes(0x1a, 0x45, 0xdf, 0xa3);
    const { status, body } = await send(file, `?after=${first!.id}&width=640&height=480`);
    expect(status).toBe(201);
    const made = (await pages())[1]!;
    expect(made).toMatchObject({ id: body.page, width: 1280, height: 960, title: 'crossing.webm' });
    expect(made.surface).toMatchObject({ kind: 'media', form: 'video' });
    const { material } = made.surface as { material: string };
    const answer = await teacher.send<string>('GET', `/api/materials/${material}/file`);
    expect(answer.headers.get('content-type')).toBe('video/webm');
    expect(answer.headers.get('content-security-policy')).toContain('sandbox');
    expect((await new Client(server.url).send('GET', `/api/materials/${material}/file`)).status).toBe(401);
  });

  it('that is something else, or too large, is refused with what to do', async () => {
    const wrong = await send(bytes('<script>'));
    expect([wrong.status, wrong.body.code]).toEqual([415, 'not-media']);
    expect(wrong.body.message).toContain('MP4');
    const large = await send(Buffer.concat([bytes(0x1a, 0x45, 0xdf, 0xa3), Buffer.alloc(1_100_000)]));
    expect(large.status).toBe(413);
    expect((await send(bytes('ID3'), '?width=0&height=2')).status).toBe(400);
  });
});
