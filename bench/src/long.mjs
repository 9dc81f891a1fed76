// A class that has written all day: 60,000 strokes of 60 points on 12 pages. What an append costs, how a joiner
// gets in and who is held up by it, turning, stopping and starting, and room on the disk; beside an empty class in
// the same run.
import { packPoints } from '@doodla/core';
import { fork } from 'node:child_process';
import { once } from 'node:events';
import { readdirSync, statSync } from 'node:fs';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { fillLog } from './filledLog.mjs';
import { RawSocket } from './rawSocket.mjs';
import { median, percentile, report } from './report.mjs';
import { aStroke, handPoints, School } from './school.mjs';

const STROKES = Number(process.env.BENCH_STROKES ?? 60_000);
const PAGES = 12;
const APPENDS = 240;
const JOINERS = 5;

function databaseBytes(folder) {
  return readdirSync(folder)
    .filter((name) => name.startsWith('doodla.sqlite'))
    .reduce((sum, name) => sum + statSync(join(folder, name)).size, 0);
}

/** Milliseconds that each of some appends takes, as the one who writes sees it. */
async function appends(teacher, log, page, author) {
  const times = [];
  for (let i = 0; i < APPENDS; i++) {
    const mark = aStroke(page, author, null, packPoints(handPoints(60, i)));
    const started = performance.now();
    await teacher.ask('submit', {
      log,
      operation: { id: `append-${log.id}-${i}`, changes: [{ do: 'add', mark }] },
    });
    times.push(performance.now() - started);
    // Below what one person may write in a second.
    await new Promise((resolve) => setTimeout(resolve, 18));
  }
  return times;
}

/** Somebody in a process of their own who notes how long the server keeps them waiting. */
async function watch(sitting) {
  const script = fileURLToPath(new URL('./watcher.mjs', import.meta.url));
  const child = fork(script, [school.url, school.cookie, sitting]);
  await once(child, 'message');
  return {
    begin: () => child.send('begin'),
    longest: async () => {
      child.send('read');
      return (await once(child, 'message'))[0];
    },
    end: () => child.kill(),
  };
}

/** Milliseconds until somebody who opens a log has all marks of a page. */
async function openPage(socket, log, page) {
  const started = performance.now();
  await socket.ask('open', { log });
  return readPage(socket, log, page, started);
}

function readPage(socket, log, page, started = performance.now()) {
  return new Promise((resolve, reject) => {
    let count = 0;
    // Joiners are other computers: reading what they get must not take this one's time.
    socket.onText = (text) => {
      if (!text.startsWith('42["piece"') || !text.slice(0, 200).includes(page)) return false;
      count += text.split('"kind":"stroke"').length - 1;
      if (text.endsWith('"last":true}]')) resolve({ ms: performance.now() - started, count });
      return true;
    };
    socket.ask('read', { log, page }).catch(reject);
  });
}

const school = new School();
await school.start();
const long = await school.startClass(PAGES);
long.teacher.close();
await school.stop();
const before = databaseBytes(school.data);
await fillLog(school.data, long, { count: STROKES, points: 60, pageOf: (i) => long.pages[i % PAGES] });
const perStroke = (databaseBytes(school.data) - before) / STROKES;

try {
  const starting = performance.now();
  await school.start();
  const startMs = performance.now() - starting;
  const empty = await school.startClass(PAGES);
  const teacher = await RawSocket.open(school.url, { cookie: school.cookie });
  await teacher.ask('open', { log: long.log });
  const watcher = await watch(empty.log.id);

  const emptyAppends = await appends(empty.teacher, empty.log, empty.pages[0], empty.author);
  watcher.begin();
  const longAppends = await appends(teacher, long.log, long.pages[0], long.author);
  const appendStall = await watcher.longest();

  watcher.begin();
  const students = await Promise.all(
    Array.from({ length: JOINERS }, (_, i) => school.join(long, `Student ${i}`)),
  );
  const opened = await Promise.all(students.map(({ socket }) => openPage(socket, long.log, long.pages[0])));
  const joinStall = await watcher.longest();
  watcher.end();
  const turned = await readPage(students[0].socket, long.log, long.pages[0]);
  const fresh = await readPage(students[0].socket, long.log, long.pages[1]);

  const stopping = performance.now();
  await school.stop();
  const stopMs = performance.now() - stopping;
  const ratio = median(longAppends) / median(emptyAppends);
  report('long', {
    strokes: { value: STROKES },
    appendMs: { value: median(longAppends), baseline: median(emptyAppends) },
    append95Ms: { value: percentile(longAppends, 0.95), baseline: percentile(emptyAppends, 0.95) },
    appendRatio: { value: ratio, limit: 1.5 },
    appendStallMs: { value: appendStall, limit: 50 },
    openMs: {
      value: Math.max(...opened.map(({ ms }) => ms)),
      limit: 1500,
      joiners: JOINERS,
      marks: opened[0].count,
    },
    joinStallMs: { value: joinStall, limit: 50 },
    turnMs: { value: turned.ms, limit: 150, marks: turned.count },
    turnUnreadMs: { value: fresh.ms, marks: fresh.count },
    stopMs: { value: stopMs, limit: 2000 },
    startMs: { value: startMs, limit: 2000 },
    bytesPerStroke: { value: perStroke, limit: 1500 },
  });
} finally {
  await school.remove();
}
process.exit();
