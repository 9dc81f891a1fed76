import { mkdirSync, mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import type { AddressInfo } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { brotliCompressSync, gzipSync } from 'node:zlib';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { createApp } from '../src/app.js';
import { readSettings } from '../src/settings/settings.js';

const SCRIPT = 'export const chalk = "white";'.repeat(50);
const folder = mkdtempSync(join(tmpdir(), 'doodla-web-'));
let app: Awaited<ReturnType<typeof createApp>>;
let url: string;

beforeAll(async () => {
  mkdirSync(join(folder, 'assets'));
  for (const name of ['start-a1.js', 'pdf.worker-b2.mjs']) {
    const path = join(folder, 'assets', name);
    writeFileSync(path, SCRIPT);
    writeFileSync(`${path}.br`, brotliCompressSync(SCRIPT));
    writeFileSync(`${path}.gz`, gzipSync(SCRIPT));
  }
  writeFileSync(join(folder, 'index.html'), '<!doctype html><title>Doodla</title>');
  app = await createApp(readSettings({ DOODLA_PORT: '0', DOODLA_DATA: join(folder, 'data') }), folder);
  await app.listen(0, '127.0.0.1');
  const { port } = (app.getHttpServer() as { address(): AddressInfo }).address();
  url = `http://127.0.0.1:${port}`;
});
afterAll(async () => {
  await app.close();
  rmSync(folder, { recursive: true, force: true });
});

/** Bytes of all header lines as they go over the line. */
const headerBytes = ({ headers }: Response) =>
  [...headers].reduce((sum, [name, value]) => sum + name.length + value.length + 4, 0);

describe('a built script', () => {
  it.each([
    ['br, gzip', 'br'],
    ['gzip', 'gzip'],
    ['identity', null],
  ])('is sent to a browser that takes %s as the build has compressed it', async (accepted, sent) => {
    const answer = await fetch(`${url}/assets/start-a1.js`, { headers: { 'accept-encoding': accepted } });
    expect(answer.headers.get('content-encoding')).toBe(sent);
    expect(answer.headers.get('content-type')).toMatch(/^text\/javascript/);
    expect(answer.headers.get('cache-control')).toMatch(/immutable/);
    expect(await answer.text()).toBe(SCRIPT);
  });

  it('comes with few headers, and cannot be taken for anything else', async () => {
    const answer = await fetch(`${url}/assets/start-a1.js`);
    expect(headerBytes(answer)).toBeLessThan(600);
    expect(answer.headers.get('x-content-type-options')).toBe('nosniff');
  });

  it('of a worker, and every page, comes with the policy that it has to obey', async () => {
    for (const path of ['/assets/pdf.worker-b2.mjs', '/join', '/sitting/any']) {
      const { headers } = await fetch(url + path);
      expect(headers.get('content-security-policy')).toContain("default-src 'self'");
    }
  });

  it('that is not there is said to be missing, not the start page', async () => {
    expect((await fetch(`${url}/assets/gone-c3.js`)).status).toBe(404);
  });
});

describe('what is no page', () => {
  it('is answered by the server itself: how it is, and its figures', async () => {
    const health = await fetch(`${url}/health`);
    expect(await health.json()).toMatchObject({ status: 'well', database: 'writable' });
    expect((await fetch(`${url}/metrics`)).status).toBe(404);
    expect(await (await fetch(`${url}/healthy`)).text()).toContain('<title>Doodla</title>');
  });
});
