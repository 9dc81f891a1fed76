import { afterAll, beforeAll, describe, expect, it, vi } from 'vitest';
import { PdfReader } from '../src/materials/pdfReader.js';
import { PrivacyService } from '../src/privacy/privacy.service.js';
import type { TestClass } from './helpers/aClass.js';
import { aClass } from './helpers/aClass.js';
import { joiner } from './helpers/joining.js';
import { pdfWith } from './helpers/pdfs.js';
import { pictureForm } from './helpers/pngs.js';
import type { TestServer } from './helpers/server.js';
import { Client, signedIn, startServer } from './helpers/server.js';

let server: TestServer;
let teacher: Client;
let at: TestClass;

beforeAll(async () => {
  server = await startServer();
  teacher = await signedIn(server);
  at = await aClass(server, teacher);
});
afterAll(() => server.remove());

const ofLesson = () => `/api/lessons/${at.lesson.id}/cover`;
const ofClass = () => `/api/sittings/${at.sitting.id}/cover`;
/** What a picture is, by the mark that the server gives its content. */
async function seen(path: string, who = teacher): Promise<string | number> {
  const { status, headers } = await who.send('GET', path);
  return status === 200 ? headers.get('content-length')! + headers.get('etag')! : status;
}

describe('pictures on the start page', () => {
  it('are a lesson’s first page until a browser says what it looks like; a class’s own come later', async () => {
    const first = await seen(ofLesson());
    expect(await seen(ofClass())).toBe(first);
    expect((await teacher.send('PUT', ofClass(), pictureForm('#d55e00'))).status).toBe(204);
    expect(await seen(ofLesson())).toBe(first);
    const written = await seen(ofClass());
    expect(written).not.toBe(first);
    expect((await teacher.send('PUT', ofLesson(), pictureForm('#009e73'))).status).toBe(204);
    expect(await seen(ofLesson())).not.toBe(first);
    expect(await seen(ofClass())).toBe(written);
  });

  it('are tried once more where there was no time to draw one, and not for ever', async () => {
    const { lesson } = await teacher.upload('late.pdf', await pdfWith([300, 200]));
    const draw = vi.spyOn(server.app.get(PdfReader), 'picture');
    draw.mockRejectedValueOnce(new Error('no time'));
    const path = `/api/lessons/${lesson!.id}/cover`;
    expect(await seen(path)).toBe(404);
    expect(await seen(path)).toMatch(/W/);
    const { lesson: bad } = await teacher.upload('bad.pdf', await pdfWith([300, 200]));
    draw.mockClear().mockRejectedValue(new Error('damaged'));
    for (let i = 0; i < 4; i++) expect(await seen(`/api/lessons/${bad!.id}/cover`)).toBe(404);
    expect(draw).toHaveBeenCalledTimes(2);
    draw.mockRestore();
  });

  it('are their teacher’s alone, and PNGs', async () => {
    for (const path of [ofLesson(), ofClass()]) {
      expect(await seen(path, new Client(server.url))).toBe(401);
      expect((await new Client(server.url).send('PUT', path, pictureForm('#000000'))).status).toBe(401);
      const form = new FormData();
      form.append('file', new Blob(['<svg/>']), 'cover.png');
      expect((await teacher.send('PUT', path, form)).body.code).toBe('not-a-picture');
    }
  });

  it('show nothing any more of a student about whom everything was deleted', async () => {
    const { live } = await joiner(server, at)('Kiri');
    live.close();
    await teacher.send('POST', `/api/sittings/${at.sitting.id}/end`, { title: 'Today', drop: false });
    await teacher.send('PUT', ofClass(), pictureForm('#cc79a7'));
    const before = await seen(ofClass());
    expect(await server.app.get(PrivacyService).forget(at.me, 'Kiri')).toBe(1);
    expect(await seen(ofClass())).not.toBe(before);
    expect(await seen(ofClass())).toBe(await seen(ofLesson()));
  });
});
