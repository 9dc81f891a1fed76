import Database from 'better-sqlite3';
import { spawn } from 'node:child_process';
import { once } from 'node:events';
import {
  copyFileSync,
  existsSync,
  mkdirSync,
  mkdtempSync,
  readFileSync,
  renameSync,
  rmSync,
  writeFileSync,
} from 'node:fs';
import { createServer } from 'node:net';
import type { AddressInfo } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { leftoverPrefix } from '../src/documents/leftovers.js';
import { Jobs } from '../src/processes/jobs.js';
import { PurgeService } from '../src/lessons/purge.service.js';
import { StartError } from '../src/storage/dataFolder.js';
import { LogStore } from '../src/storage/logStore.js';
import { pdfWith } from './helpers/pdfs.js';
import { signedIn, startServer } from './helpers/server.js';
import { databaseFor, dropDatabaseOf, POSTGRES } from './helpers/testDatabase.js';

const MAIN = fileURLToPath(new URL('../dist/main.js', import.meta.url));
let data: string;

beforeEach(() => (data = mkdtempSync(join(tmpdir(), 'doodla-start-'))));
afterEach(() => rmSync(data, { recursive: true, force: true }));

/** An installation with a teacher, a lesson and its file. */
async function aSchool(): Promise<void> {
  const server = await startServer({}, data);
  await (await signedIn(server)).upload('kept.pdf', await pdfWith([80, 80]));
  await server.stop();
}

/** What the program says that does not start. */
async function saidAtStart(env: Record<string, string>): Promise<string> {
  const child = spawn(process.execPath, [MAIN], {
    env: { PATH: process.env.PATH, DOODLA_DATA: data, DOODLA_PORT: '0', ...env },
    stdio: ['ignore', 'ignore', 'pipe'],
  });
  let said = '';
  child.stderr.on('data', (text: Buffer) => (said += text.toString()));
  const [code] = (await once(child, 'close')) as [number];
  expect(code).toBe(1);
  return said;
}

describe('a start that cannot be', () => {
  it('says in one sentence which port is in use', async () => {
    const other = createServer().listen(0, '0.0.0.0');
    await once(other, 'listening');
    const { port } = other.address() as AddressInfo;
    const said = await saidAtStart({ DOODLA_PORT: String(port) });
    expect(said).toBe(
      `Port ${port} is in use by another program. Stop that one, or set DOODLA_PORT to another port.\n`,
    );
    other.close();
  });

  it.each([
    [
      'a host that is not here',
      { DOODLA_HOST: '203.0.113.9' },
      /^This computer has no address 203\.0\.113\.9/,
    ],
    [
      'a certificate that is not there',
      { DOODLA_TLS_CERT: '/nowhere', DOODLA_TLS_KEY: '/nowhere' },
      /^The certificate or key \/nowhere cannot be read \(ENOENT\)/,
    ],
    [
      'a flag that is neither yes nor no',
      { DOODLA_FETCH_PRIVATE: 'yes' },
      /^DOODLA_FETCH_PRIVATE: this is 1 or 0/,
    ],
    [
      'a folder that is a file',
      { DOODLA_DATA: '/etc/hostname' },
      /^The data folder \/etc\/hostname cannot be written to/,
    ],
  ])('says in one sentence of %s', async (_, env, sentence) => {
    const said = await saidAtStart(env);
    expect(said).toMatch(sentence);
    expect(said.trim().split('\n')).toHaveLength(1);
  });

  it('says that a certificate and a key do not go together', async () => {
    for (const name of ['a.pem', 'b.pem']) writeFileSync(join(data, name), 'nonsense');
    const said = await saidAtStart({
      DOODLA_TLS_CERT: join(data, 'a.pem'),
      DOODLA_TLS_KEY: join(data, 'b.pem'),
    });
    expect(said).toMatch(/^The certificate and its key cannot be used together/);
  });
});

describe('a data folder', () => {
  const refused = () =>
    startServer({}, data).then(
      () => 'started',
      (error: Error) => error,
    );

  it.skipIf(POSTGRES)('without its database is left alone', async () => {
    await aSchool();
    const database = join(data, 'doodla.sqlite');
    renameSync(database, `${database}.away`);
    const error = (await refused()) as Error;
    expect(error).toBeInstanceOf(StartError);
    expect(error.message).toContain('not the database that they belong to');
    expect(existsSync(database)).toBe(false);
    // An empty one is no better: it would open set-up to whoever comes first.
    writeFileSync(database, '');
    expect(await refused()).toBeInstanceOf(StartError);
    new Database(database).close();
    expect(await refused()).toBeInstanceOf(StartError);
    renameSync(`${database}.away`, database);
    await (await startServer({}, data)).stop();
  });

  it.skipIf(POSTGRES)('with the database of another installation is left alone', async () => {
    await aSchool();
    const other = mkdtempSync(join(tmpdir(), 'doodla-other-'));
    await (await startServer({}, other)).stop();
    copyFileSync(join(other, 'doodla.sqlite'), join(data, 'doodla.sqlite'));
    for (const end of ['-wal', '-shm']) rmSync(join(data, `doodla.sqlite${end}`), { force: true });
    expect(await refused()).toMatchObject({
      message: expect.stringContaining('different installations') as string,
    });
    rmSync(other, { recursive: true });
  });

  it.skipIf(POSTGRES)('whose database is damaged is left alone', async () => {
    await aSchool();
    const path = join(data, 'doodla.sqlite');
    const bytes = readFileSync(path);
    writeFileSync(path, Buffer.concat([Buffer.alloc(100), bytes.subarray(100)]));
    expect(await refused()).toMatchObject({ message: expect.stringContaining('is damaged') as string });
  });

  it.skipIf(POSTGRES)(
    'serves one program at a time, and the second takes nothing from the first',
    async () => {
      const server = await startServer({}, data);
      const incoming = join(data, 'incoming', 'half-way');
      writeFileSync(incoming, 'half of an upload');
      expect(await refused()).toMatchObject({
        message: expect.stringContaining('runs on the data folder') as string,
      });
      expect(existsSync(incoming)).toBe(true);
      await server.stop();
      await (await startServer({}, data)).stop();
    },
  );

  it('keeps files that nothing names, and drops those whose last naming was seen to go', async () => {
    const server = await startServer({}, data);
    const teacher = await signedIn(server);
    const { lesson } = await teacher.upload('gone.pdf', await pdfWith([90, 90]));
    const stray = join(data, 'files', 'aa', 'a'.repeat(64));
    mkdirSync(join(data, 'files', 'aa'), { recursive: true });
    writeFileSync(stray, 'nobody knows whose');
    await teacher.send('DELETE', `/api/lessons/${lesson!.id}`);
    const day = 24 * 3600 * 1000;
    await server.app.get(PurgeService).purge(Date.now() + 40 * day);
    expect(existsSync(stray)).toBe(true);
    await server.remove();
  });

  it('that cannot be purged for now goes on serving', async () => {
    const server = await startServer({}, data);
    const teacher = await signedIn(server);
    server.app.get(PurgeService).purge = () =>
      Promise.reject(Object.assign(new Error('database is locked'), { code: 'SQLITE_BUSY' }));
    await server.app.get(Jobs).onApplicationBootstrap();
    expect((await teacher.send('GET', '/api/lessons')).status).toBe(200);
    expect((await teacher.send<{ failures: number }>('GET', '/health')).body.failures).toBeGreaterThan(0);
    await server.remove();
  });
});

describe.skipIf(!POSTGRES)('a database in PostgreSQL', () => {
  it('serves one program at a time, and one that cannot be reached is said', async () => {
    const server = await startServer({}, data);
    const database = (await databaseFor(data))!;
    const other = mkdtempSync(join(tmpdir(), 'doodla-second-'));
    await expect(startServer({ DOODLA_DATABASE: database }, other)).rejects.toThrow('runs on the database');
    await server.stop();
    const again = await startServer({ DOODLA_DATABASE: database }, data);
    await again.stop();
    // The files of another installation are none of this database's.
    await (await startServer({ DOODLA_DATABASE: 'sqlite:' }, other)).stop();
    await expect(startServer({ DOODLA_DATABASE: database }, other)).rejects.toThrow(
      'different installations',
    );
    const nowhere = 'postgres://doodla@127.0.0.1:1/none';
    await expect(startServer({ DOODLA_DATABASE: nowhere }, other)).rejects.toThrow('cannot be reached');
    await dropDatabaseOf(data);
  });
});

describe('a conversion that a killed server left behind', () => {
  /** Something that runs on with a temporary folder of its own, as an office program would. */
  function leftRunning(prefix: string) {
    const folder = mkdtempSync(join(tmpdir(), prefix));
    const child = spawn(process.execPath, ['-e', 'setInterval(() => {}, 1000)', folder], {
      detached: true,
      stdio: 'ignore',
    });
    return { folder, child, ended: once(child, 'exit') };
  }

  it('is ended at the next start, and another server’s is not', async () => {
    const ours = leftRunning(leftoverPrefix(data));
    const theirs = leftRunning(leftoverPrefix(join(data, 'elsewhere')));
    await Promise.all([once(ours.child, 'spawn'), once(theirs.child, 'spawn')]);
    const server = await startServer({}, data);
    try {
      expect(await ours.ended).toEqual([null, 'SIGKILL']);
      expect(existsSync(ours.folder)).toBe(false);
      expect(theirs.child.exitCode).toBeNull();
      expect(theirs.child.signalCode).toBeNull();
      expect(existsSync(theirs.folder)).toBe(true);
    } finally {
      await server.stop();
      theirs.child.kill('SIGKILL');
      rmSync(theirs.folder, { recursive: true });
    }
  });
});

describe('health', () => {
  it('tells whoever watches that all is well, and what is not', async () => {
    const server = await startServer({}, data);
    const teacher = await signedIn(server);
    const well = await teacher.send<Record<string, unknown>>('GET', '/health');
    expect(well).toMatchObject({ status: 200, body: { status: 'well', database: 'writable' } });
    const store = server.app.get(LogStore);
    store.isWritable = () => Promise.resolve(false);
    expect(await teacher.send('GET', '/health')).toMatchObject({
      status: 503,
      body: { database: 'not writable' },
    });
    await server.remove();
  });

  it.skipIf(POSTGRES)('counts another’s write as a sign of life', async () => {
    const server = await startServer({}, data);
    const other = new Database(join(data, 'doodla.sqlite'));
    other.exec('BEGIN IMMEDIATE');
    expect(await server.app.get(LogStore).isWritable()).toBe(true);
    other.exec('ROLLBACK');
    other.close();
    await server.remove();
  });
});
