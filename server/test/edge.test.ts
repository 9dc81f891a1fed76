import type { DrawMessage } from '@doodla/core';
import { packPoints } from '@doodla/core';
import Database from 'better-sqlite3';
import fc from 'fast-check';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import 'reflect-metadata';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { failures, logFailure } from '../dist/http/failures.js';
import { isDrawMessage } from '../dist/live/live.dto.js';
import { GroupCommit } from '../dist/storage/groupCommit.js';

const DRAWN: DrawMessage = {
  log: { kind: 'sitting', id: 'log' },
  page: 'page',
  stroke: 'stroke',
  from: 0,
  points: packPoints([1, 2, 0.5, 0, 3, 4, 0.5, 16])!,
  head: {
    space: 'class',
    style: { nature: 'pen', colour: '#0072b2', width: 3, opacity: 1 },
    pressure: true,
  },
};

describe('a part of wet ink from outside', () => {
  it('is taken as a hand draws it, with its head or without', () => {
    const { head, ...rest } = DRAWN;
    expect(isDrawMessage(DRAWN)).toBe(true);
    expect(isDrawMessage(rest)).toBe(true);
    expect(isDrawMessage({ ...DRAWN, head: { ...head, fade: 2000, space: 'student:wren' } })).toBe(true);
  });

  it.each<[string, unknown]>([
    ['nothing', undefined],
    ['a list', [DRAWN]],
    ['no log', { ...DRAWN, log: undefined }],
    ['a log without a name', { ...DRAWN, log: { kind: 'sitting' } }],
    ['a page that is an object', { ...DRAWN, page: {} }],
    ['a stroke with an endless name', { ...DRAWN, stroke: 's'.repeat(5000) }],
    ['a place before the beginning', { ...DRAWN, from: -1 }],
    ['a place that is no number', { ...DRAWN, from: NaN }],
    ['points as a list', { ...DRAWN, points: [1, 2, 0.5, 0] }],
    ['points that are none', { ...DRAWN, points: '****' }],
    ['far too many points at once', { ...DRAWN, points: 'A'.repeat(30_000) }],
    ['a head without a style', { ...DRAWN, head: { space: 'class', pressure: true } }],
    ['a width that covers everything', headWith({ width: 1e9 })],
    ['a colour that is a script', headWith({ colour: 'url(javascript:alert(1))' })],
    ['a nature that there is none of', headWith({ nature: 'laser' })],
    ['ink that never fades', { ...DRAWN, head: { ...DRAWN.head, fade: 1e12 } }],
    ['the space of nobody', { ...DRAWN, head: { ...DRAWN.head, space: 'everybody' } }],
  ])('is refused with %s', (_, message) => {
    expect(isDrawMessage(message)).toBe(false);
  });

  it('is judged without a throw, whatever it is', () => {
    fc.assert(
      fc.property(fc.anything(), fc.constantFrom(...Object.keys(DRAWN)), (value, key) => {
        expect(typeof isDrawMessage(value)).toBe('boolean');
        expect(typeof isDrawMessage({ ...DRAWN, [key]: value })).toBe('boolean');
      }),
    );
  });
});

function headWith(style: object): unknown {
  return { ...DRAWN, head: { ...DRAWN.head, style: { ...DRAWN.head!.style, ...style } } };
}

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
    await vi.waitFor(() => expect(tries.mock.calls.length).toBeGreaterThan(2));
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
