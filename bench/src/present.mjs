// Teaching a class of thirty: turning to a prepared page here and on the students' screens, pointing, and how
// spotlight and magnifier follow on a page with 1,000 marks; against a bare relay and an empty page.
import { PDFDocument, rgb } from '@cantoo/pdf-lib';
import { Server } from 'socket.io';
import { io } from 'socket.io-client';
import { withBrowser } from './harness.mjs';
import { pageIds, Person, write } from './person.mjs';
import { median, percentile, report } from './report.mjs';

const STUDENTS = 30;
const MARKS = 1000;
const TURNS = 40;
const POINTS = 200;

/** Two pages that differ in their middle. */
async function lessonFile() {
  const doc = await PDFDocument.create();
  for (const colour of [rgb(0.9, 0.1, 0.1), rgb(0.1, 0.1, 0.9)])
    doc.addPage([960, 540]).drawRectangle({ x: 380, y: 170, width: 200, height: 200, color: colour });
  return Buffer.from(await doc.save());
}

function strokes(page, author) {
  return Array.from({ length: MARKS }, (_, n) => {
    const [x, y] = [20 + (n % 40) * 30, 20 + Math.floor(n / 40) * 27];
    const points = Array.from({ length: 30 }, (_, i) => [
      x + i * 0.8,
      y + 6 * Math.sin(i / 3 + n),
      0.5,
      i * 8,
    ]).flat();
    const style = { nature: 'pen', colour: '#0072b2', width: 2, opacity: 1 };
    const common = {
      id: `s${n}`,
      page,
      author,
      space: 'class',
      order: 'a0',
      locked: false,
      group: null,
      alt: null,
    };
    return { ...common, createdAt: 0, kind: 'stroke', style, points, pressure: false };
  });
}

async function joined(url, code, sitting) {
  return Promise.all(
    Array.from({ length: STUDENTS }, async (_, n) => {
      const answer = await fetch(`${url}/api/join`, {
        method: 'POST',
        headers: { 'content-type': 'application/json' },
        body: JSON.stringify({ code, name: `Student ${n + 1}` }),
      });
      const person = new Person(url, { token: (await answer.json()).token });
      await person.open({ kind: 'sitting', id: sitting });
      return { person, socket: person.socket, classroom: await person.enter(sitting) };
    }),
  );
}

/**
 * Milliseconds from sending `count` messages to each listener's hearing of them; `send` gives each its own mark, and
 * `listen` is given what hears of one.
 */
async function delays(listen, count, send, everyMs) {
  const sentAt = new Map();
  const heard = [];
  const stop = listen((mark) => {
    const at = sentAt.get(mark);
    if (at !== undefined) heard.push(performance.now() - at);
  });
  for (let i = 0; i < count; i++) {
    sentAt.set(send(i), performance.now());
    await new Promise((resolve) => setTimeout(resolve, everyMs));
  }
  await new Promise((resolve) => setTimeout(resolve, 500));
  stop();
  return heard;
}

/** Hears where others point, by the place across. */
function listenToPointing(sockets) {
  return (hear) => {
    const pointed = ({ x }) => hear(x);
    for (const socket of sockets) socket.on('pointed', pointed);
    return () => sockets.forEach((socket) => socket.off('pointed', pointed));
  };
}

/** Hears which page a class is turned to, as each of some students comes to know of it. */
function listenToTurns(classrooms) {
  return (hear) => {
    const stops = classrooms.map(({ state }) => {
      let last = state.get().page;
      return state.subscribe(() => {
        const { page } = state.get();
        if (page !== last) hear(page);
        last = page;
      });
    });
    return () => stops.forEach((stop) => stop());
  };
}

/** The same messages through a server that does nothing but pass them on. */
async function bareRelay() {
  const server = new Server(0, { transports: ['websocket'] });
  server.on('connection', (socket) =>
    socket.on('point', (message) => socket.broadcast.emit('pointed', message)),
  );
  const url = `http://localhost:${server.httpServer.address().port}`;
  const sockets = Array.from({ length: STUDENTS + 1 }, () =>
    io(url, { transports: ['websocket'], forceNew: true }),
  );
  await Promise.all(sockets.map((socket) => new Promise((resolve) => socket.on('connect', resolve))));
  const [sender, ...listeners] = sockets;
  const send = (i) => {
    sender.emit('point', { x: i });
    return i;
  };
  const heard = await delays(listenToPointing(listeners), POINTS, send, 33);
  for (const socket of sockets) socket.disconnect();
  await server.close();
  return heard;
}

/** Frames from a key press until the middle of the page shows the other page. */
function turnFrames(page, key) {
  return page.evaluate(
    (pressed) =>
      new Promise((resolve) => {
        const canvas = document.querySelector('canvas[data-layer=dry]');
        const colour = () => {
          const { scale, x, y } = window.doodla.stageState();
          const box = canvas.getBoundingClientRect();
          const [px, py] = [x + 640 * scale - box.left, y + 360 * scale - box.top].map(Math.round);
          return canvas.getContext('2d').getImageData(px, py, 1, 1).data.join();
        };
        const before = colour();
        requestAnimationFrame(() => {
          document.body.dispatchEvent(new window.KeyboardEvent('keydown', { key: pressed, bubbles: true }));
          let frames = 0;
          const look = () => {
            frames++;
            if (colour() !== before || frames > 120) resolve(frames);
            else requestAnimationFrame(look);
          };
          requestAnimationFrame(look);
        });
      }),
    key,
  );
}

/** Milliseconds between frames while something of the scene is moved in each. */
function followFrames(page, kind) {
  return page.evaluate(
    (what) =>
      new Promise((resolve) => {
        const { classroom, stageState } = window.doodla;
        const { page: id } = stageState();
        const box = { page: id, shared: true, width: 220, height: 220 };
        const own = what === 'magnifier' ? { factor: 3 } : { shape: 'round', dark: 0.7 };
        const times = [];
        let last;
        let n = 0;
        const tick = (now) => {
          if (last !== undefined) times.push(now - last);
          last = now;
          const at = { x: 300 + 200 * Math.sin(n / 20), y: 200 + 120 * Math.cos(n / 20) };
          classroom.setScene({ focus: { kind: what, ...box, ...at, ...own } }, true);
          if (++n < 240) return requestAnimationFrame(tick);
          classroom.setScene({ focus: null });
          resolve(times.slice(30));
        };
        requestAnimationFrame(tick);
      }),
    kind,
  );
}

await withBrowser(async (context) => {
  const page = await context.newPage();
  await page.goto('/');
  await page
    .getByLabel('Choose documents')
    .setInputFiles({ name: 'two.pdf', mimeType: 'application/pdf', buffer: await lessonFile() });
  await page.locator('[data-testid=stage][data-shown=true]').waitFor();
  await page.getByRole('button', { name: 'Start class' }).click();
  const code = (await page.getByTestId('join-code').innerText()).replace(/\s/g, '');
  await page.getByRole('button', { name: 'Close' }).click();
  await page.locator('[data-testid=stage][data-shown=true]').waitFor();
  const url = new URL(page.url()).origin;
  const sitting = page.url().split('/').at(-1);
  const cookie = (await context.cookies()).map(({ name, value }) => `${name}=${value}`).join('; ');
  const { lessonId } = await (await context.request.get(`/api/sittings/${sitting}`)).json();
  const teacher = new Person(url, { cookie });
  const pages = pageIds(await teacher.open({ kind: 'lesson', id: lessonId }));
  const log = await teacher.open({ kind: 'sitting', id: sitting });

  // The page that was never shown is fetched ahead; a turn there and back settles everything.
  await page.waitForTimeout(1500);
  for (const key of ['PageDown', 'PageUp']) await turnFrames(page, key);
  const turns = [];
  for (let i = 0; i < TURNS; i++) {
    turns.push(await turnFrames(page, i % 2 === 0 ? 'PageDown' : 'PageUp'));
    await page.waitForTimeout(60);
  }

  const empty = {
    spotlight: await followFrames(page, 'spotlight'),
    magnifier: await followFrames(page, 'magnifier'),
  };
  await write(log, strokes(pages[0], log.actor.id));
  await page.waitForFunction((count) => window.doodla.stageState().marks.length === count, MARKS);
  const full = {
    spotlight: await followFrames(page, 'spotlight'),
    magnifier: await followFrames(page, 'magnifier'),
  };

  const students = await joined(url, code, sitting);
  const leading = await teacher.enter(sitting);
  const turned = await delays(
    listenToTurns(students.map(({ classroom }) => classroom)),
    TURNS,
    (i) => {
      const target = pages[i % 2];
      leading.turn(target);
      return target;
    },
    250,
  );
  const pointed = await delays(
    listenToPointing(students.map(({ socket }) => socket)),
    POINTS,
    (i) => {
      teacher.line.send('point', { sitting, page: pages[0], x: i, y: 5, gone: false });
      return i;
    },
    33,
  );
  for (const { person } of students) person.close();
  teacher.close();
  const bare = await bareRelay();
  const ratio = (kind) => median(full[kind]) / median(empty[kind]);
  report('present', {
    turnFrames95: { value: percentile(turns, 0.95), limit: 2 },
    turnStudents95Ms: { value: percentile(turned, 0.95), limit: 150, heard: turned.length },
    point95Ms: { value: percentile(pointed, 0.95), limit: 80, heard: pointed.length },
    pointRatio: { value: percentile(pointed, 0.95) / percentile(bare, 0.95) },
    spotlightMs: { value: median(full.spotlight), baseline: median(empty.spotlight) },
    spotlightRatio: { value: median(full.spotlight) <= 17 ? 1 : ratio('spotlight'), limit: 1.3 },
    magnifierMs: { value: median(full.magnifier), baseline: median(empty.magnifier) },
    magnifierRatio: { value: median(full.magnifier) <= 17 ? 1 : ratio('magnifier'), limit: 1.3 },
  });
});
