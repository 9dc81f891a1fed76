// Pages that answer: what a tap takes on a page of 300 marks with rules, and what 60 students who answer on copies of their own
// cost the server, beside as many plain strokes; how long a crossword takes, the figures of a class, and an idea map.
import { packPoints, standInId } from '@doodla/core';
import { itemsOf, resultOf, summaryOf } from '@doodla/core/answers';
import { makeExercise } from '@doodla/core/exercises';
import { layIdeas, newIdeaMap } from '@doodla/core/idea-map';
import { chromium } from 'playwright-core';
import { cpuSeconds } from './process.mjs';
import { median, report } from './report.mjs';
import { aStroke, handPoints, School } from './school.mjs';

const RULED = 300;
const STUDENTS = 60;
/** Answers of each student, a second apart. */
const ANSWERS = 8;
const FRAME_MS = 1000 / 60;
const TAPS = 15;

const CROSSWORD_MS = 300;
const OVERVIEW_MS = 1000;
const IDEAS = 500;
const MAP_MS = 100;
/** Common English words (from memory) that a crossword is laid of. */
const WORDS =
  'river ocean mountain forest desert island valley glacier volcano harbour bridge tunnel village station market garden window kitchen picture blanket'.split(
    ' ',
  );

function exercise(kind, text) {
  const words = Object.fromEntries(
    ['across', 'down', 'most', 'least', 'isTrue', 'isFalse', 'spin', 'roll', 'pick'].map((name) => [
      name,
      name,
    ]),
  );
  const area = { x: 0, y: 0, width: 1280, height: 720 };
  return makeExercise({ kind, text, title: '', level: 'medium', seed: 1, area, words });
}

/** Milliseconds in which a crossword of 20 words is laid out, as its worker does it. */
function crosswordMs() {
  const text = WORDS.map((word) => `${word} = clue`).join('\n');
  const times = Array.from({ length: 7 }, () => {
    const before = performance.now();
    exercise('crossword', text);
    return performance.now() - before;
  });
  return median(times);
}

/** An idea with up to eight that hang on it, and so on, until so many are made. */
function ideas(count) {
  const root = { id: 'i0', text: 'Idea 0', width: 90, height: 34, children: [] };
  const all = [root];
  for (let i = 1; i < count; i++) {
    const idea = { id: `i${i}`, text: `Idea ${i}`, width: 60 + (i % 7) * 20, height: 30, children: [] };
    all[Math.floor((i - 1) / 8)].children.push(idea);
    all.push(idea);
  }
  return root;
}

/** Milliseconds in which 500 ideas are laid out in the slowest way, and in which a whole map of them is made with its marks. */
function ideaMapMs() {
  const timed = (what) =>
    median(
      Array.from({ length: 7 }, () => {
        const before = performance.now();
        what();
        return performance.now() - before;
      }),
    );
  const root = ideas(IDEAS);
  const laid = ['sides', 'down', 'round'].map((layout) => timed(() => layIdeas(root, layout)));
  let count = 0;
  const common = () => ({
    ...{ id: `m${count++}`, page: 'page', author: 'ada', space: 'class', order: 'a0' },
    ...{ locked: false, group: null, alt: null, createdAt: 0 },
  });
  return { laid: Math.max(...laid), made: timed(() => newIdeaMap(root, [0, 0], 'sides', common)) };
}

/** Milliseconds in which the figures of 60 students are computed, each of whom has answered all of 40 things. */
function overviewMs() {
  const list = ['A', 'B', 'C', 'D'].map(
    (name) => `${name}: ${[...Array(10).keys()].map((i) => name + i).join(', ')}`,
  );
  const marks = exercise('groups', list.join('\n'));
  const byId = new Map(marks.map((mark) => [mark.id, mark]));
  const items = itemsOf(marks, (id) => byId.get(id));
  const log = new Map();
  for (let i = 0; i < STUDENTS; i++)
    for (const { id, places } of items) {
      const space = `student:${i}`;
      const standIn = { for: id, at: places[0], tries: 1, taps: 0, since: 1 };
      log.set(standInId(id, space), { ...byId.get(id), space, author: String(i), createdAt: 2, standIn });
    }
  const before = performance.now();
  for (let i = 0; i < STUDENTS; i++) {
    const now = (id) => log.get(standInId(id, `student:${i}`)) ?? byId.get(id);
    summaryOf(items.map((item) => resultOf(item, now)));
  }
  return performance.now() - before;
}

const school = new School();
await school.start();

function aBox(made, i, set) {
  const stroke = aStroke(made.pages[0], made.author);
  for (const field of ['points', 'pressure']) delete stroke[field];
  const place = {
    x: 10 + (i % 20) * 28,
    y: 10 + Math.floor(i / 20) * 40,
    width: 24,
    height: 24,
    rotation: 0,
  };
  const style = { line: '#000000', width: 1, dash: 'solid', fill: '#56b4e9', opacity: 1 };
  const shape = { kind: 'shape', form: 'rectangle', sides: 5, flip: false };
  return { ...stroke, ...shape, ...place, id: `box-${i}`, style, ...set };
}

/** Things that can be moved, each third one a button that swaps its neighbour. */
function ruledBoxes(made) {
  return Array.from({ length: RULED }, (_, i) =>
    aBox(made, i, {
      rule:
        i % 3 === 0
          ? { tap: { steps: [{ do: 'swap', marks: [`box-${i + 1}`] }], once: false } }
          : { moves: { movement: { how: 'freely' }, copies: false } },
    }),
  );
}

async function prepare(made) {
  const log = { kind: 'lesson', id: made.lesson };
  await made.teacher.ask('open', { log });
  const changes = ruledBoxes(made).map((mark) => ({ do: 'add', mark }));
  await made.teacher.ask('submit', { log, operation: { id: `rules-${made.lesson}`, changes } });
}

/** Milliseconds of the main thread for a tap until its frame is there, and of the tap's own code. */
async function tapTimes(made) {
  const browser = await chromium.launch({
    executablePath: process.env.CHROMIUM ?? '/usr/bin/chromium',
    args: ['--no-sandbox', '--disable-gpu'],
  });
  try {
    const context = await browser.newContext({ baseURL: school.url, viewport: { width: 1280, height: 800 } });
    const [name, value] = school.cookie.split('=');
    await context.addCookies([{ name, value, url: school.url }]);
    const page = await context.newPage();
    await page.goto(`/sitting/${made.log.id}`);
    await page.locator('[data-testid=stage][data-shown=true]').waitFor();
    await page
      .getByRole('button', { name: /^To be tapped/ })
      .first()
      .waitFor();
    const movable = page.getByRole('button', { name: /^To be moved/ });
    const before = await movable.count();
    const times = [];
    for (let i = 0; i < TAPS; i++)
      times.push(
        await page.evaluate(async (at) => {
          const button = [...document.querySelectorAll('button[aria-label^="To be tapped"]')][at];
          const frame = () => new Promise((done) => requestAnimationFrame(() => setTimeout(done)));
          await frame();
          const { x, y } = button.getBoundingClientRect();
          const init = {
            bubbles: true,
            pointerId: 1,
            clientX: x + 4,
            clientY: y + 4,
            isPrimary: true,
            button: 0,
          };
          button.setPointerCapture = () => undefined;
          button.dispatchEvent(new window.PointerEvent('pointerdown', init));
          const began = performance.now();
          button.dispatchEvent(new window.PointerEvent('pointerup', init));
          const handled = performance.now() - began;
          // All that follows in this turn and in the frame after it.
          await new Promise((done) => requestAnimationFrame(done));
          const inFrame = performance.now();
          await new Promise((done) => setTimeout(done));
          return { handled, drawn: performance.now() - inFrame };
        }, i),
      );
    // Each tap has hidden its neighbour.
    const gone = before - (await movable.count());
    if (gone !== TAPS) throw new Error(`${TAPS} taps have hidden ${gone}.`);
    return times;
  } finally {
    await browser.close();
  }
}

/** Processor seconds of the server while all students submit what `marksOf` makes. */
async function served(students, log, marksOf) {
  const before = cpuSeconds(school.pid);
  for (let round = 0; round < ANSWERS; round++) {
    await Promise.all(
      students.map(({ socket, author }, i) =>
        socket.ask('submit', {
          log,
          operation: { id: `a-${marksOf.name}-${round}-${i}`, changes: marksOf(author, i, round) },
        }),
      ),
    );
    await new Promise((done) => setTimeout(done, 500));
  }
  return cpuSeconds(school.pid) - before;
}

try {
  const made = await school.startClass();
  await prepare(made);
  const [page] = made.pages;
  const taps = await tapTimes(made);
  await made.teacher.ask('ways', { sitting: made.log.id, ways: { [page]: 'own' } });
  const students = [];
  for (let i = 0; i < STUDENTS; i++) students.push(await school.join(made, `Student ${i}`));
  const strokes = (author, i, round) => [
    {
      do: 'add',
      mark: {
        ...aStroke(page, author, null, packPoints(handPoints(60, i + round))),
        space: `student:${author}`,
      },
    },
  ];
  const answers = (author, i, round) => {
    const n = 3 * ((7 * i + round) % (RULED / 3)) + 1;
    const original = aBox(made, n, {});
    const space = `student:${author}`;
    return [
      {
        do: 'add',
        mark: {
          ...original,
          id: standInId(original.id, space),
          author,
          space,
          x: 100 + 5 * i,
          y: 700 - 3 * round,
          standIn: { for: original.id, tries: 0, taps: 0 },
        },
      },
    ];
  };
  const first = (...each) => strokes(...each);
  await served(students, made.log, first);
  const plain = await served(students, made.log, strokes);
  const answered = await served(students, made.log, answers);
  const map = ideaMapMs();
  report('answer', {
    ruled: { value: RULED },
    tapMs: { value: median(taps.map(({ handled, drawn }) => handled + drawn)), limit: FRAME_MS },
    tapOwnMs: { value: median(taps.map(({ handled }) => handled)) },
    answerCpuSeconds: { value: answered, baseline: plain, of: STUDENTS * ANSWERS },
    cpuRatio: { value: answered / plain, limit: 2 },
    crosswordMs: { value: crosswordMs(), limit: CROSSWORD_MS },
    overviewMs: { value: overviewMs(), limit: OVERVIEW_MS },
    ideaMapMs: { value: map.laid, limit: MAP_MS },
    ideaMapMadeMs: { value: map.made },
  });
} finally {
  await school.remove();
}
process.exit();
