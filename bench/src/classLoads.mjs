// Notes that a whole class adds and moves at once, and somebody who comes late to a full page.
import { FREE, IDEAS_AT_FIRST, packPoints } from '@doodla/core';
import { LogClient, MemoryOutbox, Store } from '@doodla/core/client';
import { createHash, randomUUID } from 'node:crypto';
import { once } from 'node:events';
import { fork } from 'node:child_process';
import { fileURLToPath } from 'node:url';
import { RawSocket } from './rawSocket.mjs';
import { aStroke, handPoints } from './school.mjs';

const STUDENTS = 60;
const NOTES = 300;
const SECONDS = Number(process.env.BENCH_IDEAS_SECONDS ?? 20);
const MARKS = 5000;

/** A connection as the clients of `core` want it, over a raw socket. */
class RawLine {
  status = new Store('online');
  #listeners = new Map();

  constructor(socket) {
    this.socket = socket;
    socket.onEvent = (event, message) => this.#listeners.get(event)?.(message);
  }

  on(event, callback) {
    this.#listeners.set(event, callback);
    return () => this.#listeners.delete(event);
  }

  onOnline(callback) {
    callback();
    return () => undefined;
  }

  request(event, message) {
    return this.socket.ask(event, message);
  }
}

/** Sixty students add three hundred notes and put them together; then all are compared. */
export async function measureIdeas(school) {
  const room = await school.startClass();
  const [page] = room.pages;
  const sitting = room.log.id;
  const rules = { ...IDEAS_AT_FIRST, grouping: true };
  await room.teacher.ask('ideas', { sitting, set: { [page]: rules } });
  let refused = 0;
  const clients = await Promise.all(
    Array.from({ length: STUDENTS }, async (_, i) => {
      const { socket, author } = await school.join(room, `Student ${i}`);
      const log = new LogClient(room.log, new RawLine(socket), {
        situation: () => FREE,
        outboxFor: () => new MemoryOutbox(),
      });
      log.refused.subscribe(() => (refused += 1));
      await until(() => log.status.get().ready);
      await log.need(page);
      return { log, socket, author };
    }),
  );
  await work(clients, page);
  await until(() => clients.every(({ log }) => log.status.get().waiting === 0));
  // The last arrangement is told a moment later.
  await until(() => new Set(clients.map(({ log }) => hashOf(log))).size === 1, 15_000);
  const hashes = clients.map(({ log }) => hashOf(log));
  const notesNow = () => [...clients[0].log.state.marks.values()].filter(({ kind }) => kind === 'note');
  await until(() => overlaps(notesNow()) === 0, 5000);
  const notes = notesNow();
  for (const { log, socket } of clients) {
    log.close();
    socket.close();
  }
  room.teacher.close();
  return {
    clients: STUDENTS,
    different: hashes.filter((hash) => hash !== hashes[0]).length,
    notes: notes.length,
    overlapping: overlaps(notes),
    refused,
  };
}

async function work(clients, page) {
  const steps = NOTES;
  for (let i = 0; i < steps; i++) {
    const due = (i * SECONDS * 1000) / steps;
    if (i === 0) clients.startedAt = performance.now();
    await pause(Math.max(0, due - (performance.now() - clients.startedAt)));
    const { log, author } = clients[i % clients.length];
    log.perform([{ do: 'add', mark: aNote(page, author, i) }]);
    const mover = clients[(i * 7) % clients.length];
    const notes = [...mover.log.state.marks.values()].filter(({ kind }) => kind === 'note');
    const moved = notes[(i * 13) % Math.max(1, notes.length)];
    if (moved) {
      const set = { group: i % 5 === 0 ? null : `group-${i % 8}` };
      mover.log.perform([{ do: 'patch', mark: moved.id, set }]);
    }
  }
}

function aNote(page, author, i) {
  const shared = { id: randomUUID(), page, author, space: 'class', order: `a${i % 10}`, locked: false };
  const style = { colour: '#f0e442', font: 'andika' };
  const box = { x: 0, y: 0, width: 100, height: 100, rotation: 0 };
  return { kind: 'note', ...shared, group: null, alt: null, createdAt: 0, text: `Idea ${i}`, style, ...box };
}

function hashOf({ state }) {
  const marks = [...state.marks.values()].sort((a, b) => (a.id < b.id ? -1 : 1));
  const all = JSON.stringify(marks, (_, value) =>
    value && typeof value === 'object' && !Array.isArray(value)
      ? Object.fromEntries(Object.entries(value).sort(([a], [b]) => (a < b ? -1 : 1)))
      : value,
  );
  return createHash('sha256').update(all).digest('hex');
}

function overlaps(notes) {
  let count = 0;
  for (const [i, a] of notes.entries())
    for (const b of notes.slice(i + 1))
      if (a.x < b.x + b.width && b.x < a.x + a.width && a.y < b.y + b.height && b.y < a.y + a.height)
        count += 1;
  return count;
}

/** Somebody comes to a page with five thousand marks; beside it the same bytes over a bare socket. */
export async function measureLateJoiner(school) {
  const room = await school.startClass();
  const [page] = room.pages;
  for (let i = 0; i < MARKS; i += 100) {
    const changes = Array.from({ length: 100 }, (_, n) => ({
      do: 'add',
      mark: aStroke(page, room.author, null, packPoints(handPoints(60, i + n))),
    }));
    await room.teacher.ask('submit', { log: room.log, operation: { id: `fill-${i}`, changes } });
    await pause(30);
  }
  // The teacher has the page open, as in every class; whoever reads it first waits until it is in memory.
  const cold = performance.now();
  await room.teacher.ask('read', { log: room.log, page });
  const coldMs = performance.now() - cold;
  const { socket } = await school.join(room, 'Late');
  const texts = [];
  const started = performance.now();
  await new Promise((resolve) => {
    socket.onText = (text) => {
      texts.push(text);
      return false;
    };
    socket.onEvent = (event, message) => event === 'piece' && message.last && resolve();
    // Its answer comes after the last piece, and is not waited for.
    socket.ask('read', { log: room.log, page }).catch(() => undefined);
  });
  const ms = performance.now() - started;
  socket.close();
  room.teacher.close();
  return {
    ms,
    coldMs,
    bareMs: await bareTime(texts),
    bytes: texts.reduce((sum, { length }) => sum + length, 0),
  };
}

/** How long the same messages take from a server that only sends them, read as they are. */
async function bareTime(texts) {
  const child = fork(fileURLToPath(new URL('./bareSender.mjs', import.meta.url)));
  child.send(texts);
  const [port] = await once(child, 'message');
  const socket = await RawSocket.open(`http://localhost:${port}`, { path: '/bare' });
  const started = performance.now();
  await new Promise((resolve) => {
    socket.onEvent = (event, message) => event === 'piece' && message.last && resolve();
    socket.emit('go', {});
  });
  const ms = performance.now() - started;
  socket.close();
  child.kill();
  return ms;
}

async function until(isSo, patienceMs = 60_000) {
  const end = performance.now() + patienceMs;
  while (!isSo() && performance.now() < end) await pause(50);
}

const pause = (ms) => new Promise((resolve) => setTimeout(resolve, ms));
