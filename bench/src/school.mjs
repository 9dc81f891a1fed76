// A server process of its own with a teacher, lessons and classes, reached as browsers reach it.
import { PDFDocument } from '@cantoo/pdf-lib';
import { spawn } from 'node:child_process';
import { once } from 'node:events';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { RawSocket } from './rawSocket.mjs';

const MAIN = fileURLToPath(new URL('../../server/dist/main.js', import.meta.url));
const PORT = 4691;

/** Starts a process of the built server. */
export async function startServer(env) {
  const child = spawn(process.execPath, [MAIN], {
    env: { ...process.env, ...env },
    stdio: ['ignore', 'pipe', 'inherit'],
  });
  await once(child.stdout, 'data');
  return child;
}

export class School {
  data = mkdtempSync(join(tmpdir(), 'doodla-bench-'));
  url = `http://localhost:${PORT}`;
  cookie = '';

  async start() {
    this.child = await startServer({ DOODLA_PORT: String(PORT), DOODLA_DATA: this.data });
    if (!this.cookie) await this.setUp();
  }

  /** Signs the first teacher in. */
  async setUp() {
    const answer = await this.send('POST', '/api/setup', {
      name: 'Bench',
      email: 'bench@school.example',
      password: 'bench-and-beam',
    });
    this.cookie = answer.headers.getSetCookie()[0].split(';')[0];
  }

  get pid() {
    return this.child.pid;
  }

  /** Ends the process as a system does that is shut down. */
  async stop() {
    this.child.kill('SIGTERM');
    await once(this.child, 'exit');
  }

  async remove() {
    this.child.kill('SIGKILL');
    rmSync(this.data, { recursive: true, force: true });
  }

  send(method, path, body) {
    const isForm = body instanceof FormData;
    return fetch(this.url + path, {
      method,
      headers: { cookie: this.cookie, ...(body && !isForm && { 'content-type': 'application/json' }) },
      ...(body && { body: isForm ? body : JSON.stringify(body) }),
    });
  }

  /** A class on a new lesson, with pens up; the teacher is in it. */
  async startClass(pages = 1) {
    const doc = await PDFDocument.create();
    for (let i = 0; i < pages; i++) doc.addPage([600, 800]);
    const form = new FormData();
    form.append('file', new Blob([await doc.save()]), 'bench.pdf');
    const lines = (await (await this.send('POST', '/api/lessons', form)).text()).trim().split('\n');
    const lesson = JSON.parse(lines.at(-1)).lesson.id;
    const sitting = await (
      await this.send('POST', `/api/lessons/${lesson}/sittings`, { title: 'Bench' })
    ).json();
    const log = { kind: 'sitting', id: sitting.id };
    const teacher = await RawSocket.open(this.url, { cookie: this.cookie, about: lesson });
    const opened = await teacher.ask('open', { log });
    await teacher.ask('enter', { sitting: sitting.id });
    await teacher.ask('pens', { sitting: sitting.id, up: true });
    const ordered = opened.pages.sort((a, b) => (a.order < b.order ? -1 : 1)).map(({ id }) => id);
    return { lesson, log, code: sitting.code, teacher, author: opened.actor.id, pages: ordered };
  }

  /** Somebody who joins a class and opens its log. */
  async join({ code, log, lesson }, name) {
    const { token, student } = await (await this.send('POST', '/api/join', { code, name })).json();
    const socket = await RawSocket.open(this.url, { auth: { token }, about: lesson });
    await socket.ask('open', { log });
    await socket.ask('enter', { sitting: log.id });
    return { socket, author: student.id };
  }
}

let count = 0;

/** A stroke of a hand: `points` of them, 16 ms apart. */
export function aStroke(page, author, points, packed) {
  count += 1;
  return {
    kind: 'stroke',
    id: `stroke-${count}-${author.slice(0, 8)}`,
    page,
    author,
    space: 'class',
    order: 'a0',
    locked: false,
    group: null,
    alt: null,
    createdAt: 0,
    style: { nature: 'pen', colour: '#0072b2', width: 3, opacity: 1 },
    points: packed ?? points,
    pressure: true,
  };
}

/** Points as a hand leaves them, flat x, y, pressure, time. */
export function handPoints(n, seed = 0) {
  return Array.from({ length: n }, (_, i) => [
    Math.round((60 + ((seed * 37) % 480) + i * 1.9 + 3 * Math.sin(i / 5)) * 100) / 100,
    Math.round((60 + ((seed * 53) % 680) + 9 * Math.sin(i / 4 + seed)) * 100) / 100,
    Math.round((0.5 + 0.2 * Math.sin(i / 6)) * 1000) / 1000,
    i * 16,
  ]).flat();
}
