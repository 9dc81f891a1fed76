import { createCanvas } from '@napi-rs/canvas';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { pdfWith } from './helpers/pdfs.js';
import { LiveClient } from './helpers/live.js';
import type { TestServer } from './helpers/server.js';
import { Client, signedIn, startServer } from './helpers/server.js';

let server: TestServer;
let teacher: Client;
let lesson: string;
let sitting: { id: string; code: string };

beforeAll(async () => {
  server = await startServer();
  teacher = await signedIn(server);
  lesson = (await teacher.upload('lesson.pdf', await pdfWith([300, 200]))).lesson!.id;
  sitting = (
    await teacher.send<typeof sitting>('POST', `/api/lessons/${lesson}/sittings`, { title: 'Today' })
  ).body;
});
afterAll(() => server.remove());

const png = () => createCanvas(8, 6).toBuffer('image/png');

function form(bytes: Uint8Array): FormData {
  const data = new FormData();
  data.append('file', new Blob([bytes as Uint8Array<ArrayBuffer>]), 'picture');
  return data;
}

async function join(name: string): Promise<{ authorization: string }> {
  const { body } = await new Client(server.url).send<{ token: string }>('POST', '/api/join', {
    code: sitting.code,
    name,
  });
  return { authorization: `Bearer ${body.token}` };
}

async function pens(up: boolean): Promise<void> {
  const live = await LiveClient.connect(server.url, { cookie: teacher.cookie });
  await live.ask('pens', { sitting: sitting.id, up });
  live.close();
}

const send = (
  path: string,
  bytes: Uint8Array,
  headers: Record<string, string> = {},
  client = new Client(server.url),
) => client.send<{ id: string; code: string; message: string }>('POST', path, form(bytes), headers);

describe('pictures', () => {
  it('are stored and given to the teacher and to students of the lesson alone', async () => {
    const { status, body } = await send(`/api/lessons/${lesson}/pictures`, png(), {}, teacher);
    expect(status).toBe(201);
    const path = `/api/pictures/${body.id}`;
    const got = await teacher.send('GET', path);
    expect([got.status, got.headers.get('content-type')]).toEqual([200, 'image/png']);
    expect((await new Client(server.url).send('GET', path, undefined, await join('Wren'))).status).toBe(200);
    expect((await new Client(server.url).send('GET', path)).status).toBe(401);
  });

  it('come from students only while pens are up', async () => {
    const tove = await join('Tove');
    const path = `/api/sittings/${sitting.id}/pictures`;
    await pens(false);
    expect((await send(path, png(), tove)).body.code).toBe('pens-down-pictures');
    await pens(true);
    expect((await send(path, png(), tove)).status).toBe(201);
    expect((await send(`/api/lessons/${lesson}/pictures`, png(), tove)).body.code).toBe('not-allowed');
  });

  it.each([
    ['text', Buffer.from('no picture at all')],
    [
      'SVG, which could carry scripts',
      Buffer.from('<svg xmlns="http://www.w3.org/2000/svg"><script>1</script></svg>'),
    ],
    ['a PNG that is cut off', createCanvas(64, 64).toBuffer('image/png').subarray(0, 40)],
    ['nothing', Buffer.alloc(0)],
    // Signature, IHDR and IEND of a PNG that claims 12,000 × 9,000 pixels (W3C PNG §5.2, §11.2).
    [
      'a hundred megapixels',
      Buffer.from('89504e470d0a1a0a0000000d4948445200002ee000002328080600000049454e44ae426082', 'hex'),
    ],
  ])('are refused where they are %s', async (_, bytes) => {
    const { status, body } = await send(`/api/lessons/${lesson}/pictures`, bytes, {}, teacher);
    expect(status).toBe(415);
    expect(body.message).toContain('PNG or JPEG');
  });
});
