// Teaching a class of thirty: turning to a prepared page here and on the students' screens, pointing, and how
// spotlight and magnifier follow on a page with 1,000 marks; against a bare relay and an empty page.
import { PDFDocument, rgb } from '@cantoo/pdf-lib';
import { Server } from 'socket.io';
import { io } from 'socket.io-client';
import { withBrowser } from './harness.mjs';
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

const connect = (url, options) => {
  const socket = io(url, { path: '/live', transports: ['websocket'], forceNew: true, ...options });
  return Object.assign(socket, {
    ask: async (event, message) => {
      const reply = await socket.timeout(60_000).emitWithAck(event, message);
      if (reply.error) throw new Error(reply.error.message);
      return reply;
    },
  });
};

async function joined(url, code, sitting) {
  return Promise.all(
    Array.from({ length: STUDENTS }, async (_, n) => {
      const answer = await fetch(`${url}/api/join`, {
        method: 'POST',
        headers: { 'content-type': 'application/json' },
        body: JSON.stringify({ code, name: `Student ${n + 1}` }),
      });
      const socket = connect(url, { auth: { token: (await answer.json()).token } });
      await socket.ask('open', { log: { kind: 'sitting', id: sitting } });
      await socket.ask('enter', { sitting });
      return socket;
    }),
  );
}

/** Milliseconds from sending `count` messages to each listener's hearing of them; `send` gives each its own mark. */
async function delays(listeners, event, markOf, count, send, everyMs) {
  const sentAt = new Map();
  const heard = [];
  const hear = (message) => {
    const at = sentAt.get(markOf(message));
    if (at !== undefined) heard.push(performance.now() - at);
  };
  for (const socket of listeners) socket.on(event, hear);
  for (let i = 0; i < count; i++) {
    sentAt.set(send(i), performance.now());
    await new Promise((resolve) => setTimeout(resolve, everyMs));
  }
  await new Promise((resolve) => setTimeout(resolve, 500));
  for (const socket of listeners) socket.off(event, hear);
  return heard;
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
  const heard = await delays(listeners, 'pointed', ({ x }) => x, POINTS, send, 33);
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
  const teacher = connect(url, { extraHeaders: { cookie } });
  const lesson = await teacher.ask('open', { log: { kind: 'lesson', id: lessonId } });
  const pages = lesson.pages.sort((a, b) => (a.order < b.order ? -1 : 1)).map(({ id }) => id);
  const log = { kind: 'sitting', id: sitting };
  const { actor } = await teacher.ask('open', { log });

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
  const marks = strokes(pages[0], actor.id);
  for (let i = 0; i < MARKS; i += 250) {
    const changes = marks.slice(i, i + 250).map((mark) => ({ do: 'add', mark }));
    await teacher.ask('submit', { log, operation: { id: `fill-${i}`, changes } });
  }
  await page.waitForFunction((count) => window.doodla.stageState().marks.length === count, MARKS);
  const full = {
    spotlight: await followFrames(page, 'spotlight'),
    magnifier: await followFrames(page, 'magnifier'),
  };

  const students = await joined(url, code, sitting);
  const turned = await delays(
    students,
    'class',
    (state) => state.page + state.pensUp,
    TURNS,
    (i) => {
      const target = pages[i % 2];
      void teacher.ask('turn', { sitting, page: target });
      return `${target}false`;
    },
    250,
  );
  const pointed = await delays(
    students,
    'pointed',
    ({ x }) => x,
    POINTS,
    (i) => {
      teacher.emit('point', { sitting, page: pages[0], x: i, y: 5, gone: false });
      return i;
    },
    33,
  );
  for (const socket of [...students, teacher]) socket.disconnect();
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
