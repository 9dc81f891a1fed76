// A class that writes: what all pens draw, at the others' screens, and finished strokes; for one class of 60 with
// 20 writing and for 40 classes of 30 with 3 writing. Beside it a bare Socket.IO server that passes the same
// points on one by one.
import { INK_TICK_MS, packPoints } from '@doodla/core';
import { fork } from 'node:child_process';
import { once } from 'node:events';
import { fileURLToPath } from 'node:url';
import { cpuSeconds, residentMegabytes } from './process.mjs';
import { RawSocket } from './rawSocket.mjs';
import { percentile, report } from './report.mjs';
import { aStroke, handPoints, School } from './school.mjs';

const SECONDS = Number(process.env.BENCH_SECONDS ?? 8);
/** Milliseconds between a browser's messages while one draws, with so many new points. */
const EVERY_MS = INK_TICK_MS;
const POINTS = 2;
/** A stroke is so long, then it is finished and the next begun. */
const STROKE_POINTS = 60;
const STYLE = { nature: 'pen', colour: '#0072b2', width: 3, opacity: 1 };

/** One pen: draws stroke after stroke, at a steady pace from a moment of its own. */
class Writer {
  #from = 0;
  #stroke = 0;
  #length;
  sent = 0;

  /** `first`: points of the first stroke; where all have the same, all lift at the same moment, again and again. */
  constructor(socket, author, log, page, tally, first = STROKE_POINTS) {
    Object.assign(this, { socket, author, log, page, tally });
    this.#length = first;
  }

  step() {
    const points = handPoints(POINTS, this.#from);
    const stroke = `${this.author.slice(0, 12)}-${this.#stroke}`;
    this.tally.drawn.set(`${stroke} ${this.#from}`, performance.now());
    this.socket.emit('draw', {
      log: this.log,
      page: this.page,
      stroke,
      from: this.#from,
      points: packPoints(points),
      ...(this.#from === 0 && { head: { space: 'class', style: STYLE, pressure: true } }),
    });
    this.sent += POINTS;
    this.#from += POINTS;
    if (this.#from < this.#length) return;
    this.#from = 0;
    this.#length = STROKE_POINTS;
    this.#stroke += 1;
    this.#finish();
  }

  #finish() {
    const mark = aStroke(this.page, this.author, null, packPoints(handPoints(STROKE_POINTS, this.#stroke)));
    this.tally.finished.set(mark.id, performance.now());
    const operation = { id: `op-${mark.id}`, changes: [{ do: 'add', mark }] };
    this.socket
      .ask('submit', { log: this.log, operation })
      .catch((error) => this.tally.refused.push(error.message));
  }
}

/** Counts what arrives of what was drawn in one class. */
class Tally {
  drawn = new Map();
  finished = new Map();
  refused = [];
  heard = 0;
  delays = [];
  finishedDelays = [];

  listen(socket, isOwn) {
    socket.onEvent = (event, message) => {
      const now = performance.now();
      if (event === 'drawn')
        for (const { stroke, from } of message.parts) {
          if (isOwn(stroke)) continue;
          this.heard += POINTS;
          this.delays.push(now - this.drawn.get(`${stroke} ${from}`));
        }
      else if (event === 'operations')
        for (const { author, operation } of message.logged) {
          const at = this.finished.get(operation.changes[0].mark?.id);
          if (at !== undefined && !isOwn(author)) this.finishedDelays.push(now - at);
        }
    };
  }
}

/** Lets all writers draw for a while, each at its own place in the beat. */
async function write(writers) {
  const started = performance.now();
  const beats = Math.floor((SECONDS * 1000) / EVERY_MS);
  await Promise.all(
    writers.map(
      (writer, i) =>
        new Promise((resolve) => {
          let beat = 0;
          const next = () => {
            writer.step();
            if (++beat >= beats) return resolve();
            const due = started + beat * EVERY_MS + (i * EVERY_MS) / writers.length;
            setTimeout(next, Math.max(0, due - performance.now()));
          };
          setTimeout(next, (i * EVERY_MS) / writers.length);
        }),
    ),
  );
  await new Promise((resolve) => setTimeout(resolve, 1500));
}

async function measure(school, classes, students, writing) {
  const idle = residentMegabytes(school.pid);
  const rooms = [];
  for (let c = 0; c < classes; c++) {
    const room = await school.startClass();
    const people = await Promise.all(
      Array.from({ length: students }, (_, i) => school.join(room, `Student ${c} ${i}`)),
    );
    const tally = new Tally();
    tally.listen(room.teacher, () => false);
    for (const { socket, author } of people) {
      const own = author.slice(0, 12);
      tally.listen(socket, (stroke) => stroke.startsWith(own));
    }
    const writers = people.slice(0, writing).map(({ socket, author }, i) => {
      // The hands of one class lift together, which is the hardest; those of forty schoolrooms do not.
      const first =
        classes === 1 ? STROKE_POINTS : POINTS * (1 + ((7 * (3 * c + i)) % (STROKE_POINTS / POINTS)));
      return new Writer(socket, author, room.log, room.pages[0], tally, first);
    });
    rooms.push({ ...room, people, tally, writers });
  }
  // What joining has taken is given back before it is counted.
  await new Promise((resolve) => setTimeout(resolve, 3000));
  const perConnection = (residentMegabytes(school.pid) - idle) / (classes * (students + 1));
  const before = cpuSeconds(school.pid);
  await write(rooms.flatMap(({ writers }) => writers));
  const cpu = cpuSeconds(school.pid) - before;
  const tallies = rooms.map(({ tally }) => tally);
  const sent = rooms.flatMap(({ writers }) => writers).reduce((sum, writer) => sum + writer.sent, 0);
  // Everybody but the writer hears of a point: the other students and the teacher.
  const expected = sent * students;
  for (const { people, teacher } of rooms)
    for (const { close } of [teacher, ...people.map(({ socket }) => socket)].map((socket) => ({
      close: () => socket.close(),
    })))
      close();
  return {
    expected,
    heard: tallies.reduce((sum, { heard }) => sum + heard, 0),
    delays: tallies.flatMap(({ delays }) => delays),
    finished: tallies.flatMap(({ finishedDelays }) => finishedDelays),
    refused: tallies.flatMap(({ refused }) => refused),
    cpu,
    perConnection,
  };
}

/** The same points through a server that does nothing but pass each message on. */
async function measureBare(students, writing) {
  const child = fork(fileURLToPath(new URL('./bareServer.mjs', import.meta.url)));
  const [port] = await once(child, 'message');
  const url = `http://localhost:${port}`;
  const sockets = [];
  for (let i = 0; i <= students; i++) sockets.push(await RawSocket.open(url, { path: '/socket.io' }));
  const tally = new Tally();
  sockets.forEach((socket) => tally.listen(socket, () => false));
  const log = { kind: 'sitting', id: 'bare' };
  const writers = sockets
    .slice(0, writing)
    .map((socket, i) => new Writer(socket, `writer-${String(i).padStart(8, '0')}`, log, 'page', tally));
  const before = cpuSeconds(child.pid);
  await write(writers);
  const cpu = cpuSeconds(child.pid) - before;
  for (const socket of sockets) socket.close();
  child.kill();
  const sent = writers.reduce((sum, writer) => sum + writer.sent, 0);
  return { expected: sent * students, heard: tally.heard, delays: tally.delays, cpu };
}

const school = new School();
await school.start();
try {
  const one = await measure(school, 1, 60, 20);
  const bare = await measureBare(60, 20);
  const many = await measure(school, 40, 30, 3);
  const lost = ({ expected, heard }) => expected - heard;
  report('class', {
    lostPoints: { value: lost(one), limit: 0, of: one.expected },
    point95Ms: { value: percentile(one.delays, 0.95), limit: 60, baseline: percentile(bare.delays, 0.95) },
    finished95Ms: { value: percentile(one.finished, 0.95), limit: 120, refused: one.refused.length },
    cpuSeconds: { value: one.cpu, baseline: bare.cpu },
    cpuRatio: { value: one.cpu / bare.cpu, limit: 0.5 },
    bareLost: { value: lost(bare), of: bare.expected },
    manyLostPoints: { value: lost(many), limit: 0, of: many.expected },
    manyPoint95Ms: { value: percentile(many.delays, 0.95), limit: 150 },
    manyFinished95Ms: { value: percentile(many.finished, 0.95) },
    manyKbPerConnection: { value: many.perConnection * 1000, limit: 150 },
  });
} finally {
  await school.remove();
}
process.exit();
