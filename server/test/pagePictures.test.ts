import { imageSize } from 'image-size';
import { afterAll, beforeAll, describe, expect, it, vi } from 'vitest';
import { PdfReader } from '../src/materials/pdfReader.js';
import { LogsService } from '../src/live/logs.service.js';
import { pdfWith } from './helpers/pdfs.js';
import type { TestServer } from './helpers/server.js';
import { Client, signedIn, startServer } from './helpers/server.js';

let server: TestServer;
let teacher: Client;
let lesson: string;
let material: string;
beforeAll(async () => {
  server = await startServer();
  teacher = await signedIn(server);
  lesson = (await teacher.upload('maps.pdf', await pdfWith([300, 200], [200, 300]))).lesson!.id;
  const [first] = [...(await server.app.get(LogsService).open(lesson)).pages.values()];
  material = (first!.surface as { material: string }).material;
});
afterAll(() => server.remove());

const pathOf = (index: number | string) => `/api/materials/${material}/pages/${index}/picture`;
const fetchBy = (path: string, headers: Record<string, string>) => fetch(server.url + path, { headers });

describe('the quick picture of a page', () => {
  it('is a WebP in the shape of the page, for those who may see the document', async () => {
    for (const [index, shape] of [
      [0, 300 / 200],
      [1, 200 / 300],
    ] as const) {
      const answer = await fetchBy(pathOf(index), { cookie: teacher.cookie });
      expect(answer.headers.get('content-type')).toBe('image/webp');
      const { width, height, type } = imageSize(new Uint8Array(await answer.arrayBuffer()));
      expect({ width, type }).toEqual({ width: 1000, type: 'webp' });
      expect(width / height).toBeCloseTo(shape, 2);
    }
  });

  it('is drawn once for a class that asks at the same moment', async () => {
    const draw = vi.spyOn(server.app.get(PdfReader), 'picture');
    const other = (await teacher.upload('plans.pdf', await pdfWith([400, 400]))).lesson!.id;
    const [page] = [...(await server.app.get(LogsService).open(other)).pages.values()];
    const path = `/api/materials/${(page!.surface as { material: string }).material}/pages/0/picture`;
    const { body: sitting } = await teacher.send<{ id: string; code: string }>(
      'POST',
      `/api/lessons/${other}/sittings`,
      { title: 'Maps' },
    );
    const joined = await Promise.all(
      ['Wren', 'Odo', 'Pia'].map((name) =>
        new Client(server.url).send<{ token: string }>('POST', '/api/join', { code: sitting.code, name }),
      ),
    );
    const statuses = await Promise.all(
      joined.map(async ({ body }) => (await fetchBy(path, { authorization: `Bearer ${body.token}` })).status),
    );
    expect(statuses).toEqual([200, 200, 200]);
    expect(draw).toHaveBeenCalledTimes(1);
    const outside = await fetchBy(pathOf(0), { authorization: `Bearer ${joined[0]!.body.token}` });
    expect(outside.status).toBe(404);
    draw.mockRestore();
  });

  it('is refused to strangers, and where there is no such page', async () => {
    expect((await fetchBy(pathOf(0), {})).status).toBe(401);
    for (const index of [2, -1, 'x'])
      expect([400, 404]).toContain((await fetchBy(pathOf(index), { cookie: teacher.cookie })).status);
  });
});
