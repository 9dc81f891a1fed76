import { createHash } from 'node:crypto';
import { existsSync, readdirSync, rmSync, statSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { PurgeService } from '../src/lessons/purge.service.js';
import { Database } from '../src/storage/database.js';
import { FileStore } from '../src/storage/fileStore.js';
import { pdfWith } from './helpers/pdfs.js';
import type { Client, TestServer } from './helpers/server.js';
import { signedIn, startServer } from './helpers/server.js';
import { StandInStore } from './helpers/standInStore.js';

describe('a school whose files are in a store of objects', () => {
  let store: StandInStore;
  let server: TestServer;
  let teacher: Client;
  beforeEach(async () => {
    store = await StandInStore.start();
    for (const [name, value] of Object.entries(store.env))
      if (name.startsWith('AWS_')) vi.stubEnv(name, value);
    server = await startServer(own());
    teacher = await signedIn(server);
  });
  afterEach(async () => {
    await server.remove();
    await store.close();
    vi.unstubAllEnvs();
  });
  const own = () =>
    Object.fromEntries(Object.entries(store.env).filter(([name]) => name.startsWith('DOODLA_')));
  const copies = () =>
    readdirSync(join(server.data, 'files'), { recursive: true, withFileTypes: true }).filter((one) =>
      one.isFile(),
    );

  /** A document with what it hashes to, and its material. */
  async function brought() {
    const bytes = await pdfWith([300, 200]);
    const { lesson } = await teacher.upload('lesson.pdf', bytes);
    const [material] = await server.app.get(Database).all<{ id: string }>('SELECT id FROM material');
    return { bytes, lesson: lesson!, material: material!.id, sha256: hash(bytes) };
  }
  const hash = (bytes: Uint8Array) => createHash('sha256').update(bytes).digest('hex');
  const keyOf = (sha256: string) => `doodla/files/${sha256.slice(0, 2)}/${sha256}`;

  it('has each there under its hash, and the data folder needs no copy to serve it', async () => {
    const { bytes, material, sha256 } = await brought();
    expect([...store.objects.keys()]).toEqual([keyOf(sha256)]);
    expect(hash(store.objects.get(keyOf(sha256))!.bytes)).toBe(sha256);
    rmSync(join(server.data, 'files'), { recursive: true });
    for (let i = 0; i < 2; i++) {
      const answer = await fetch(`${server.url}/api/materials/${material}/file`, {
        headers: { cookie: teacher.cookie },
      });
      expect(hash(new Uint8Array(await answer.arrayBuffer()))).toBe(hash(bytes));
    }
    // Got once, and kept.
    expect(store.asked.filter((asked) => asked.startsWith('GET'))).toHaveLength(1);
  });

  it('is served nothing that has changed there', async () => {
    const { material, sha256 } = await brought();
    rmSync(join(server.data, 'files'), { recursive: true });
    store.objects.get(keyOf(sha256))!.bytes[10]! ^= 1;
    const { status } = await teacher.send('GET', `/api/materials/${material}/file`);
    expect(status).toBe(500);
    expect(existsSync(join(server.data, 'files'))).toBe(false);
  });

  it('tries again where the store is busy, and says so where it is gone', async () => {
    store.busy = 2;
    await brought();
    const before = store.objects.size;
    store.busy = Infinity;
    const answer = await teacher.upload('other.pdf', await pdfWith([80, 90]));
    expect(answer.message).toMatch(/try again/);
    store.busy = 0;
    expect((await teacher.upload('other.pdf', await pdfWith([80, 90]))).lesson).toBeDefined();
    expect(store.objects.size).toBe(before + 1);
  });

  it('has what is deleted removed there, unless it has come in again', async () => {
    const day = 24 * 3600 * 1000;
    const files = server.app.get(FileStore);
    const { sha256, lesson } = await brought();
    expect(await files.sizeOf(sha256)).toBeGreaterThan(0);
    expect(await files.remove(sha256, Date.now() - day)).toBe(false);
    await teacher.send('DELETE', `/api/lessons/${lesson.id}`);
    for (const days of [32, 34, 36]) await server.app.get(PurgeService).purge(Date.now() + days * day);
    expect(store.objects.size).toBe(0);
    expect(copies()).toEqual([]);
    expect(await files.sizeOf(sha256)).toBe(0);
  });

  it('lets go of copies that were not in use for longest, where there are too many', async () => {
    await server.stop();
    server = await startServer({ ...own(), DOODLA_CACHE_MB: '1' }, server.data);
    const files = server.app.get(FileStore);
    const shas: string[] = [];
    for (let i = 0; i < 3; i++) shas.push(await files.put(new Uint8Array(600_000).fill(i)));
    await files.trim();
    expect(copies()).toHaveLength(3);
    await files.trim(Date.now() + 3600_000);
    expect(copies()).toHaveLength(1);
    for (const sha of shas) expect(statSync(await files.local(sha)).size).toBe(600_000);
  });

  it('does not start where the store does not let it in', async () => {
    vi.stubEnv('AWS_SECRET_ACCESS_KEY', 'not-the-secret');
    await expect(startServer(own())).rejects.toThrow(/DOODLA_FILES cannot be used/);
  });
});

it('files in the data folder are as they were', async () => {
  const server = await startServer();
  const files = server.app.get(FileStore);
  const sha256 = await files.put(new TextEncoder().encode('a file'));
  writeFileSync(await files.local(sha256), 'a file');
  await files.trim(Date.now() + 3600_000);
  expect(await files.sizeOf(sha256)).toBe(6);
  await server.remove();
});
