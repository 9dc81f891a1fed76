import type { LoggedOperation, LogRef, Mark, Page, Seat, WireChange } from '@doodla/core';
import { FREE } from '@doodla/core';
import { LogClient, MemoryOutbox, SocketLine } from '@doodla/core/client';
import { setTimeout as sleep } from 'node:timers/promises';
import { io } from 'socket.io-client';
import { expect, vi } from 'vitest';
import { LiveClient, strokeBy } from './live.js';
import { pdfWith } from './pdfs.js';
import { ADA, Client } from './server.js';
import { queried } from './processes.js';

const PATIENCE_MS = 120_000;
const PAUSE_MS = 40;

/** Where the class is, and who teaches it. */
export interface Place {
  lesson: string;
  sitting: string;
  code: string;
  page: Page;
  teacher: Client;
}

/** The first teacher of an installation, signed in. */
export async function firstTeacher(url: string): Promise<Client> {
  const teacher = new Client(url);
  await teacher.send('POST', '/api/setup', ADA);
  return teacher;
}

/** A class with pens up on a lesson of one page. */
export async function openClass(url: string, teacher: Client): Promise<Place> {
  const { lesson } = await teacher.upload('lesson.pdf', await pdfWith([300, 200]));
  const path = `/api/lessons/${lesson!.id}/sittings`;
  const { body } = await teacher.send<{ id: string; code: string }>('POST', path, { title: 'Today' });
  const live = await LiveClient.connect(url, { cookie: teacher.cookie, about: lesson!.id });
  const { pages } = await live.open({ kind: 'sitting', id: body.id });
  await live.ask('pens', { sitting: body.id, up: true });
  live.close();
  return { lesson: lesson!.id, sitting: body.id, code: body.code, page: pages![0]!, teacher };
}

/** A student's browser that writes one stroke after the other and comes back by itself when it was cut off. */
export class Writer {
  /** What it has heard to be stored, by number. */
  readonly heard = new Map<number, string>();
  readonly written: string[] = [];
  readonly log: LogClient;
  private readonly line: SocketLine;
  private goesOn = true;
  private writing: Promise<void> = Promise.resolve();

  private constructor(
    url: string,
    private readonly place: Place,
    private readonly seat: Seat,
  ) {
    const socket = io(url, {
      path: '/live',
      transports: ['websocket'],
      forceNew: true,
      reconnectionDelay: 100,
      reconnectionDelayMax: 1000,
      query: { for: place.lesson },
      auth: { token: seat.token },
    });
    this.line = new SocketLine(socket, 5000);
    const ref: LogRef = { kind: 'sitting', id: place.sitting };
    this.line.on<[{ log: string; logged: LoggedOperation<WireChange>[] }]>(
      'operations',
      ({ log, logged }) => {
        if (log === place.sitting) for (const { seq, operation } of logged) this.heard.set(seq, operation.id);
      },
    );
    this.log = new LogClient(ref, this.line, { situation: () => FREE, outboxFor: () => new MemoryOutbox() });
  }

  static async join(url: string, place: Place, name: string): Promise<Writer> {
    const { body } = await new Client(url).send<Seat>('POST', '/api/join', { code: place.code, name });
    const writer = new Writer(url, place, body);
    await vi.waitUntil(() => writer.log.status.get().ready, PATIENCE_MS);
    return writer;
  }

  begin(): void {
    this.writing = this.write();
  }

  /** Writes no more, and waits until everything it wrote is stored. */
  async end(): Promise<void> {
    this.goesOn = false;
    await this.writing;
    await vi.waitUntil(() => this.log.pending.length === 0, PATIENCE_MS);
  }

  close(): void {
    this.log.close();
    this.line.close();
  }

  private async write(): Promise<void> {
    while (this.goesOn) {
      const mark = strokeBy(this.seat.student.id, this.place.page.id);
      this.written.push(mark.id);
      this.log.perform([{ do: 'add', mark }]);
      // The next one waits, so that there is a mark in every state of what happens.
      await vi.waitUntil(() => this.log.pending.length === 0, { timeout: PATIENCE_MS, interval: 5 });
      await sleep(PAUSE_MS);
    }
  }
}

/**
 * A class that writes while something happens. Everything that was written must be there once, in an order that is the same for
 * all.
 */
export async function writingThrough(
  { url, place, database, count = 4 }: { url: string; place: Place; database: string; count?: number },
  happening: () => Promise<void>,
): Promise<void> {
  const writers = await Promise.all(
    Array.from({ length: count }, (_, i) => Writer.join(url, place, `Pupil ${i + 1}`)),
  );
  for (const writer of writers) writer.begin();
  const before = writers.map(({ written }) => written.length + 5);
  await vi.waitUntil(() => writers.every(({ written }, i) => written.length > before[i]!), PATIENCE_MS);
  await happening();
  const after = writers.map(({ written }) => written.length + 5);
  await vi.waitUntil(() => writers.every(({ written }, i) => written.length > after[i]!), PATIENCE_MS);
  await Promise.all(writers.map((writer) => writer.end()));
  await checkStored(database, place, writers);
  for (const writer of writers) writer.close();
}

async function checkStored(database: string, { sitting }: Place, writers: readonly Writer[]): Promise<void> {
  const operations = await queried<{ seq: string; id: string }>(
    database,
    `SELECT seq, operation.id FROM operation JOIN log ON log.key = operation.log WHERE log.id = $1 ORDER BY seq`,
    [sitting],
  );
  const marks = await queried<{ id: string }>(
    database,
    'SELECT mark.id FROM mark JOIN log ON log.key = mark.log WHERE log.id = $1',
    [sitting],
  );
  // What others wrote before is there too.
  const all = marks.map(({ id }) => id).sort();
  const written = writers.flatMap((writer) => writer.written);
  const there = new Set(all);
  expect(written.filter((id) => !there.has(id))).toEqual([]);
  expect(new Set(written).size).toBe(written.length);
  // Numbered without a gap, and nothing twice.
  expect(operations.map(({ seq }) => Number(seq))).toEqual(operations.map((_, i) => i + 1));
  expect(new Set(operations.map(({ id }) => id)).size).toBe(operations.length);
  const bySeq = new Map(operations.map(({ seq, id }) => [Number(seq), id]));
  for (const { heard, log } of writers) {
    for (const [seq, id] of heard) expect(id).toBe(bySeq.get(seq));
    await vi.waitUntil(() => log.state.marks.size === all.length, PATIENCE_MS);
    expect([...(log.state.marks as ReadonlyMap<string, Mark>).keys()].sort()).toEqual(all);
  }
}
