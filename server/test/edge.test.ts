import Database from 'better-sqlite3';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import 'reflect-metadata';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { failures, logFailure } from '../src/http/failures.js';
import { GroupCommit } from '../src/storage/groupCommit.js';

describe('a failure in the log of the server', () => {
  it('says where and of what kind, and nothing of what people wrote', () => {
    const error = vi.fn();
    const before = failures.count;
    const failed = Object.assign(new SyntaxError('near "Wren writes a secret"'), { code: 'SQLITE_ERROR' });
    logFailure({ error } as never, 'An insert failed', failed);
    expect(failures.count).toBe(before + 1);
    const [what, where] = error.mock.calls[0] as [string, string];
    expect(what).toBe('An insert failed (SyntaxError SQLITE_ERROR)');
    expect(where).toContain('edge.test');
    expect(what + where).not.toContain('secret');
  });

  it('is noted also where something was thrown that is no error', () => {
    const error = vi.fn();
    logFailure({ error } as never, 'Something failed', 'just words of somebody');
    expect(JSON.stringify(error.mock.calls)).not.toContain('words of somebody');
  });
});

describe('writing while another program holds the database', () => {
  let folder: string;
  let ours: Database.Database;
  let backup: Database.Database;

  beforeEach(() => {
    folder = mkdtempSync(join(tmpdir(), 'doodla-'));
    ours = new Database(join(folder, 'd.sqlite'), { timeout: 0 });
    ours.pragma('journal_mode = WAL');
    ours.exec('CREATE TABLE word (text TEXT)');
    backup = new Database(join(folder, 'd.sqlite'), { timeout: 0 });
  });
  afterEach(() => {
    ours.close();
    backup.close();
    rmSync(folder, { recursive: true, force: true });
  });

  const words = () => ours.prepare('SELECT text FROM word ORDER BY rowid').pluck().all();

  it('waits until it is let go of, and then writes everything in its order', async () => {
    const commits = new GroupCommit(ours);
    const insert = ours.prepare('INSERT INTO word VALUES (?)');
    const tries = vi.spyOn(ours, 'transaction');
    backup.exec('BEGIN IMMEDIATE');
    const writes = ['a', 'b', 'c'].map((word) => commits.run(() => void insert.run(word)));
    let isDone = false;
    const all = Promise.all(writes).then(() => (isDone = true));
    await vi.waitFor(() => expect(tries.mock.calls.length).toBeGreaterThan(2), 30_000);
    const late = commits.run(() => void insert.run('d'));
    expect(isDone).toBe(false);
    expect(words()).toEqual([]);
    backup.exec('COMMIT');
    await Promise.all([all, late]);
    expect(words()).toEqual(['a', 'b', 'c', 'd']);
  });

  it('is given up in the end, with the reason, and later writes go through', async () => {
    const commits = new GroupCommit(ours);
    const insert = ours.prepare('INSERT INTO word VALUES (?)');
    backup.exec('BEGIN IMMEDIATE');
    const start = Date.now();
    const clock = vi.spyOn(Date, 'now').mockImplementation(() => start);
    const write = commits.run(() => void insert.run('a'));
    await new Promise((resolve) => setImmediate(resolve));
    clock.mockImplementation(() => start + 6000);
    await expect(write).rejects.toMatchObject({ code: 'SQLITE_BUSY' });
    clock.mockRestore();
    backup.exec('COMMIT');
    await commits.run(() => void insert.run('b'));
    expect(words()).toEqual(['b']);
  });
});
