// A class that writes: what all pens draw, at the others' screens, and finished strokes; for one class of 60 with
// 20 writing and for 40 classes of 30 with 3 writing. Beside it a bare Socket.IO server that passes the same
// points on one by one.
import { fork } from 'node:child_process';
import { once } from 'node:events';
import { fileURLToPath } from 'node:url';
import { cpuSeconds, residentMegabytes } from './process.mjs';
import { RawSocket } from './rawSocket.mjs';
import { percentile, report } from './report.mjs';
import { measureCopies, measurePoll } from './classInBrowser.mjs';
import { measureIdeas, measureLateJoiner } from './classLoads.mjs';
import { POINTS, STROKE_POINTS, Tally, write, Writer } from './classWriters.mjs';
import { School } from './school.mjs';

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
  const copies = await measureCopies(school);
  const poll = await measurePoll(school);
  const ideas = await measureIdeas(school);
  const late = await measureLateJoiner(school);
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
    wall95Ms: { value: percentile(copies.delays, 0.95), limit: 1000, of: copies.delays.length },
    // Two frames of a screen of 60 Hz.
    wallFrame95Ms: { value: percentile(copies.frames, 0.95), limit: 33.5 },
    copiesCpuRatio: { value: copies.cpu / copies.commonCpu, limit: 1.2, baseline: copies.commonCpu },
    pollChartedMs: { value: poll.chartedMs, limit: 200 },
    ideasDifferent: { value: ideas.different, limit: 0, of: ideas.clients, notes: ideas.notes },
    ideasOverlapping: { value: ideas.overlapping, limit: 0 },
    ideasRefused: { value: ideas.refused, limit: 0 },
    lateJoinRatio: {
      value: late.ms / late.bareMs,
      limit: 2,
      baseline: late.bareMs,
      bytes: late.bytes,
      coldMs: late.coldMs,
    },
  });
} finally {
  await school.remove();
}
process.exit();
