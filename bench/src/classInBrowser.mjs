// What the teacher's browser shows of a class at work: the wall of all copies, and the chart of a poll.
import { chromium } from 'playwright-core';
import { cpuSeconds } from './process.mjs';
import { STROKE_POINTS, Tally, write, Writer } from './classWriters.mjs';

const STUDENTS = 60;

/** All students write, each on a copy of their own, while the teacher has the wall open; and once together, to compare. */
export async function measureCopies(school) {
  const common = await atWork(school, 'class');
  const own = await inBrowser(school, async (page, room, people) => {
    await page.getByRole('button', { name: /^How the class works/ }).click();
    await page.getByRole('menuitemradio', { name: 'Own copies', exact: true }).click();
    await page.getByRole('button', { name: /^How the class works/ }).click();
    await page.getByRole('menuitem', { name: 'See all copies' }).click();
    await page.getByText('Not begun').first().waitFor();
    await page.evaluate(watchWall);
    const { cpu, submitted } = await writeAll(school, room, people, (author) => `student:${author}`);
    await page.waitForTimeout(1500);
    const { seen, frames } = await page.evaluate(() => window.wall);
    return { cpu, frames, delays: delaysOf(submitted, seen, people) };
  });
  return { ...own, commonCpu: common.cpu };
}

/** Sixty answers within a second; how long after the last of them the chart shows all. */
export function measurePoll(school) {
  return inBrowser(school, async (page, room, people) => {
    await page.getByRole('button', { name: 'Ask the class' }).click();
    await page.getByLabel('Hide the results until the question is closed').uncheck();
    await page.getByRole('dialog').getByRole('button', { name: 'Ask', exact: true }).click();
    await page.getByText('0 have answered.').waitFor();
    const charted = page.evaluate(
      () =>
        new Promise((resolve) => {
          const look = () => {
            const isAll = document.body.innerText.includes('60 have answered.');
            if (isAll && document.querySelector('[role=dialog] canvas')) resolve(Date.now());
            else requestAnimationFrame(look);
          };
          look();
        }),
    );
    const sitting = room.log.id;
    const { poll } = await room.teacher.ask('enter', { sitting });
    const answers = people.map(async ({ socket }, i) => {
      await new Promise((resolve) => setTimeout(resolve, (i * 1000) / STUDENTS));
      await socket.ask('answer', { sitting, poll: poll.id, value: i % 2 });
    });
    await Promise.all(answers);
    const last = Date.now();
    return { chartedMs: Math.max(0, (await charted) - last) };
  });
}

async function atWork(school, space) {
  const room = await school.startClass();
  const people = await joinAll(school, room);
  const { cpu } = await writeAll(school, room, people, () => space);
  for (const { socket } of [{ socket: room.teacher }, ...people]) socket.close();
  return { cpu };
}

async function inBrowser(school, run) {
  const room = await school.startClass();
  const people = await joinAll(school, room);
  const browser = await chromium.launch({
    executablePath: process.env.CHROMIUM ?? '/usr/bin/chromium',
    args: ['--no-sandbox', '--disable-gpu'],
  });
  try {
    const context = await browser.newContext({ viewport: { width: 1280, height: 800 } });
    const [name, value] = school.cookie.split('=');
    await context.addCookies([{ name, value, url: school.url }]);
    const page = await context.newPage();
    await page.goto(`${school.url}/sitting/${room.log.id}`);
    await page.getByRole('button', { name: /^How the class works/ }).waitFor();
    return await run(page, room, people);
  } finally {
    await browser.close();
    for (const { socket } of [{ socket: room.teacher }, ...people]) socket.close();
  }
}

function joinAll(school, room) {
  return Promise.all(Array.from({ length: STUDENTS }, (_, i) => school.join(room, `Student ${i}`)));
}

/** Everybody writes. Returns what it took, and when each stroke of each author was finished. */
async function writeAll(school, room, people, spaceOf) {
  const submitted = new Map();
  const writers = people.map(({ socket, author }, i) => {
    const tally = new Tally();
    const first = 2 * (1 + ((7 * i) % (STROKE_POINTS / 2)));
    submitted.set(author, tally.finishedAt);
    return new Writer(socket, author, room.log, room.pages[0], tally, first, spaceOf(author));
  });
  const before = cpuSeconds(school.pid);
  await write(writers);
  return { cpu: cpuSeconds(school.pid) - before, submitted };
}

/** In the browser: notes when a card of the wall says how many marks are on it, and how long frames take. */
function watchWall() {
  const wall = { seen: {}, frames: [] };
  window.wall = wall;
  const look = () => {
    for (const card of document.querySelectorAll('[role=dialog] li')) {
      const [name, progress] = [...card.querySelectorAll('span.block')].map(({ textContent }) => textContent);
      const [, count] = /^(\d+) marks?/.exec(progress) ?? [];
      if (!count) continue;
      const times = (wall.seen[name] ??= []);
      while (times.length < Number(count)) times.push(Date.now());
    }
  };
  new window.MutationObserver(look).observe(document.body, {
    childList: true,
    subtree: true,
    characterData: true,
  });
  let last = performance.now();
  const frame = (now) => {
    wall.frames.push(now - last);
    last = now;
    requestAnimationFrame(frame);
  };
  requestAnimationFrame(frame);
}

/** From when a stroke was finished to when its card counted it, milliseconds; what was never seen counts as for ever. */
function delaysOf(submitted, seen, people) {
  return people.flatMap(({ author }, i) => {
    const times = seen[`Student ${i}`] ?? [];
    return submitted.get(author).map((at, n) => (times[n] ?? Infinity) - at);
  });
}
