// What classes cost two processes that share the work, beside one; the same classes, one after the other. Whoever connects is sent
// to a process by the lesson that they come for, as the proxy in docs/operations.md does it, or to any.
import { mkdtempSync, rmSync } from 'node:fs';
import { createServer, connect } from 'node:net';
import { createHash } from 'node:crypto';
import { once } from 'node:events';
import { availableParallelism, tmpdir } from 'node:os';
import { join } from 'node:path';
import pg from 'pg';
import { Tally, write, Writer, STROKE_POINTS } from './classWriters.mjs';
import { Person, write as put } from './person.mjs';
import { cpuSeconds } from './process.mjs';
import { RawSocket } from './rawSocket.mjs';
import { median, percentile } from './report.mjs';
import { aStroke, handPoints, School, startServer } from './school.mjs';

const CLASSES = 40;
const STUDENTS = 12;
const WRITING = 3;
const ROUNDS = 2;
const PORTS = [4696, 4697];
/** Of what one process takes for a class. */
const DEARER = 1.15;
const FAIL_OVER_MS = 5000;
/** Where there are so many cores, two processes have them to themselves, and carry more classes at the same delay. */
const ENOUGH_CORES = 6;

/** `database` is the address of a server without a database’s name. */
export async function measureProcesses(database, redis) {
  const cpu = { one: [], byLesson: [], toAny: [] };
  const delays = { one: [], byLesson: [], toAny: [] };
  let costs;
  // In turn, so that what else the machine does falls on all of them.
  for (let round = 0; round < ROUNDS; round++)
    for (const [way, count] of [
      ['one', 1],
      ['byLesson', 2],
      ['toAny', 2],
    ]) {
      const taken = await inInstallation(database, redis, count, way, costOfClasses);
      cpu[way].push(taken.cpuPerClass);
      delays[way] = delays[way].concat(taken.delays);
      costs = taken.costs;
    }
  const failOver = await inInstallation(database, redis, 2, 'byLesson', failOverMs);
  const base = median(cpu.one);
  const ratio = (way) => Math.round((median(cpu[way]) / base) * 100) / 100;
  const delay = (way) => Math.round(percentile(delays[way], 0.95));
  return {
    cpuPerClass: { value: ratio('byLesson'), unit: 'times one process’s', limit: DEARER, classes: CLASSES },
    cpuPerClassSentAnywhere: { value: ratio('toAny'), unit: 'times one process’s' },
    cpuOfOne: { value: Math.round(base * 1000), unit: 'ms of a core a second and class' },
    inkDelayMs: {
      one: delay('one'),
      two: delay('byLesson'),
      anywhere: delay('toAny'),
      unit: 'ms, 95th percentile',
    },
    ofClass: Object.fromEntries(
      Object.entries(costs).map(([name, value]) => [name, Math.round(value * 100) / 100]),
    ),
    failOver: {
      value: Math.round(failOver),
      unit: 'ms until the next stroke was stored',
      limit: FAIL_OVER_MS,
    },
    cores: availableParallelism(),
    ...(availableParallelism() < ENOUGH_CORES && {
      note: 'too few cores to say how many classes two processes carry',
    }),
  };
}

async function inInstallation(database, redis, count, way, measure) {
  const name = `bench_${createHash('sha256').update(`${way} ${Math.random()}`).digest('hex').slice(0, 12)}`;
  const admin = new pg.Client({ connectionString: `${database}/postgres` });
  await admin.connect();
  await admin.query(`CREATE DATABASE ${name}`);
  const data = mkdtempSync(join(tmpdir(), 'doodla-bench-'));
  const ports = PORTS.slice(0, count);
  const processes = [];
  for (const port of ports)
    processes.push(
      await startServer({
        DOODLA_PORT: String(port),
        DOODLA_DATA: data,
        DOODLA_DATABASE: `${database}/${name}`,
        DOODLA_REDIS: redis,
      }),
    );
  const front = await frontTo(ports, way === 'byLesson');
  const school = new School();
  school.url = `http://127.0.0.1:${front.address().port}`;
  await school.setUp();
  try {
    const sizeOf = async () =>
      Number((await admin.query('SELECT pg_database_size($1) AS size', [name])).rows[0].size);
    return await measure(school, processes, front, sizeOf);
  } finally {
    front.close();
    for (const child of processes) {
      child.kill('SIGKILL');
      if (child.exitCode === null && child.signalCode === null) await once(child, 'exit');
    }
    await admin.query(`DROP DATABASE ${name} WITH (FORCE)`);
    await admin.end();
    rmSync(data, { recursive: true, force: true });
  }
}

async function costOfClasses(school, processes, _front, sizeOf) {
  const rooms = [];
  for (let c = 0; c < CLASSES; c++) {
    const room = await school.startClass();
    const people = await Promise.all(
      Array.from({ length: STUDENTS }, (_, i) => school.join(room, `Student ${c} ${i}`)),
    );
    const tally = new Tally();
    for (const { socket, author } of people) {
      const own = author.slice(0, 12);
      tally.listen(socket, (stroke) => stroke.startsWith(own));
    }
    const writers = people
      .slice(0, WRITING)
      .map(({ socket, author }) => new Writer(socket, author, room.log, room.pages[0], tally, STROKE_POINTS));
    rooms.push({ ...room, people, tally, writers });
  }
  // Each process compiles for itself what it runs often; a school day is longer than that takes.
  await write(rooms.flatMap(({ writers }) => writers));
  for (const { tally } of rooms) tally.finished.clear();
  const used = () => processes.reduce((sum, { pid }) => sum + cpuSeconds(pid), 0);
  const [before, began, heard] = [used(), performance.now(), RawSocket.received];
  const size = await sizeOf();
  await write(rooms.flatMap(({ writers }) => writers));
  const ofClassAndSecond = ((performance.now() - began) / 1000) * CLASSES;
  const cpuPerClass = (used() - before) / ofClassAndSecond;
  const stored = rooms.reduce((sum, { tally }) => sum + tally.finished.size, 0);
  const costs = {
    bytesOut: (RawSocket.received - heard) / ofClassAndSecond,
    appends: stored / ofClassAndSecond,
    bytesOfAppend: ((await sizeOf()) - size) / stored,
  };
  for (const { people, teacher } of rooms)
    for (const socket of [teacher, ...people.map((one) => one.socket)]) socket.close();
  return { cpuPerClass, costs, delays: rooms.flatMap(({ tally }) => tally.delays) };
}

/** How long somebody waits for a stroke to be stored when the process is killed that has the class in hand. */
async function failOverMs(school, processes, front) {
  const room = await school.startClass();
  const { token, student } = await (
    await school.send('POST', '/api/join', { code: room.code, name: 'Student' })
  ).json();
  const person = new Person(school.url, { token, about: room.lesson });
  const log = await person.open(room.log);
  const waits = [];
  for (let n = 0; n < 60; n++) {
    // The process to which this lesson is sent.
    if (n === 20) processes[front.placeOf(room.lesson)].kill('SIGKILL');
    const began = performance.now();
    await put(log, [aStroke(room.pages[0], student.id, handPoints(30, n))]);
    waits.push(performance.now() - began);
    await new Promise((resolve) => setTimeout(resolve, 20));
  }
  person.close();
  return Math.max(...waits);
}

/** Passes connections on to ports: by the lesson in the first line of what is sent, or to each in turn. */
async function frontTo(ports, byLesson) {
  let turn = 0;
  const placeOf = (lesson) => createHash('sha256').update(lesson).digest()[0] % ports.length;
  const server = createServer((socket) => {
    socket.on('error', () => socket.destroy());
    socket.once('data', (first) => {
      const about = /[?&]for=([\w-]+)/.exec(first.toString('latin1', 0, 400))?.[1];
      const at = byLesson && about ? placeOf(about) : (turn += 1) % ports.length;
      passOn(socket, first, [...ports.slice(at), ...ports.slice(0, at)]);
    });
  });
  server.placeOf = placeOf;
  server.listen(0, '127.0.0.1');
  await once(server, 'listening');
  return server;
}

/** The next port where one takes no connections. */
function passOn(socket, first, [port, ...others]) {
  if (port === undefined) return void socket.destroy();
  const to = connect(port, '127.0.0.1');
  to.once('error', () => passOn(socket, first, others));
  to.once('connect', () => {
    to.write(first);
    socket.pipe(to);
    to.pipe(socket);
    to.on('error', () => to.destroy());
    to.once('close', () => socket.destroy());
    socket.once('close', () => to.destroy());
  });
}
