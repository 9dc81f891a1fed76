// A whole lesson in one browser: prepared, taught to a student in a second window, handed out and ended.
import { PDFDocument, rgb, StandardFonts } from '@cantoo/pdf-lib';
import { execFileSync } from 'node:child_process';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { draw, fill, has, press, until, untilMarks } from './window.mjs';

const SIZE = { width: 1280, height: 800 };
const TEACHER = { name: 'Ada Fenn', email: 'ada@school.example', password: 'chalk-and-board' };
const wave = (x, y) => Array.from({ length: 6 }, (_, i) => [x + i * 24, y + 12 * Math.sin(i * 2.4)]);
const stage = '[data-testid=stage][data-shown=true]';
const shown = (window) =>
  until(
    window,
    'the page',
    async (selector) => {
      if (!document.querySelector(selector)) return false;
      await globalThis.doodla.toolsHere;
      return Boolean(document.querySelector('[role=toolbar]'));
    },
    stage,
  );

async function twoPages() {
  const doc = await PDFDocument.create();
  const font = await doc.embedFont(StandardFonts.Helvetica);
  for (const n of [1, 2]) {
    const page = doc.addPage([595, 842]);
    page.drawText(`Bridges, sheet ${n}`, { x: 60, y: 760, size: 28, font });
    page.drawRectangle({ x: 60, y: 600, width: 200, height: 100, color: rgb(0.1, 0.3, 0.6) });
  }
  return [...(await doc.save())];
}

/** The steps of the lesson, each with what it does; they go on from each other. */
export const STEPS = {
  'a PDF becomes a lesson, and its page is drawn': async ({ teacher, url }) => {
    await teacher.goto(url);
    const lesson = await until(
      teacher,
      'the lesson',
      async (person, pdf) => {
        const json = { 'Content-Type': 'application/json' };
        await fetch('/api/setup', { method: 'POST', headers: json, body: JSON.stringify(person) });
        const form = new FormData();
        form.append('file', new Blob([new Uint8Array(pdf)]), 'bridges.pdf');
        const answer = await (await fetch('/api/lessons', { method: 'POST', body: form })).text();
        return JSON.parse(answer.trim().split('\n').at(-1)).lesson?.id;
      },
      TEACHER,
      await twoPages(),
    );
    await teacher.goto(`${url}/lesson/${lesson}`);
    await shown(teacher);
    await until(teacher, 'blue of the drawing on the page', () => {
      const { x, y, scale } = globalThis.doodla.stageState();
      const canvas = document.querySelector('canvas[data-layer=dry]');
      const box = canvas.getBoundingClientRect();
      const k = canvas.width / box.width;
      // The middle of the rectangle: 160 and 192 points, at 96 to the inch.
      const [px, py] = [(x + 213 * scale - box.x) * k, (y + 256 * scale - box.y) * k];
      const [r, , b] = canvas.getContext('2d').getImageData(px, py, 1, 1).data;
      return b > r + 60;
    });
  },

  'ink is drawn while preparing': async ({ teacher }) => {
    await draw(teacher, wave(100, 500));
    await untilMarks(teacher, 1);
  },

  'a class begins, and a student joins by its code': async (lesson) => {
    const { teacher, student, port } = lesson;
    await press(teacher, '^Start class$');
    const code = await until(teacher, 'the code', () =>
      document.querySelector('[data-testid=join-code]')?.textContent.replace(/\s/g, ''),
    );
    await press(teacher, '^Close$');
    await press(teacher, '^Pens down');
    // Another name of the same machine, so that the windows share no cookie.
    await student.goto(`http://127.0.0.1:${port}/join/${code}`);
    await fill(student, 'name', 'Wren');
    await press(student, '^Go in$');
    await shown(student);
    await untilMarks(student, 1);
  },

  'both write at the same time': async ({ teacher, student }) => {
    await draw(student, wave(100, 400));
    await draw(teacher, wave(320, 400));
    for (const window of [teacher, student]) await untilMarks(window, 3);
  },

  'the student types': async ({ teacher, student }) => {
    await student.press('t');
    const { x, y, scale } = await student.run(() => globalThis.doodla.stageState());
    await student.click(x + 120 * scale, y + 700 * scale);
    await until(student, 'the text box', () => document.activeElement?.getAttribute('role') === 'textbox');
    await student.type('Arches push');
    await student.press('Escape');
    await until(teacher, 'the typed words', () =>
      globalThis.doodla.stageState().marks.some(({ text }) => text === 'Arches push'),
    );
  },

  'the student is told when the pens go down, and writes again when they are up': async ({
    teacher,
    student,
  }) => {
    await press(teacher, '^Pens up');
    await until(student, 'pens down', () => document.body.innerText.includes('Pens down'));
    await press(teacher, '^Pens down');
    await until(student, 'pens up', () => document.body.innerText.includes('Pens up'));
  },

  'the class follows a turn': async ({ teacher, student }) => {
    const before = await student.run(() => globalThis.doodla.stageState().page);
    await press(teacher, '^Next page$');
    await until(student, 'the other page', (old) => globalThis.doodla.stageState().page !== old, before);
    await press(teacher, '^Previous page$');
    await untilMarks(student, 4);
  },

  'a shown screen is seen by the student': async ({ teacher, student }) => {
    await press(teacher, '^Show$');
    await press(teacher, '^A screen to practise with$');
    await until(student, 'the screen', () => globalThis.doodla.stageState().screen !== null);
    await until(student, 'a picture of it', () => globalThis.doodla.screen.canvas.width > 100);
    await press(teacher, 'Stop showing$');
    await until(student, 'no screen', () => globalThis.doodla.stageState().screen === null);
    await press(teacher, '^Previous page$');
    await untilMarks(student, 4);
  },

  'the page is covered and uncovered': async ({ teacher, student }) => {
    await teacher.press('b');
    await until(student, 'the cover', () => Boolean(document.querySelector('[data-testid=cover]')));
    await teacher.press('Escape');
    await until(student, 'no cover', () => !document.querySelector('[data-testid=cover]'));
  },

  'a typed formula becomes a graph, and a small table a chart': async ({ teacher, student }) => {
    await teacher.press('t');
    await press(teacher, '^Colour and options of the text');
    await press(teacher, '^Formula$');
    await until(teacher, 'the formula field', () => document.activeElement?.tagName === 'MATH-FIELD');
    await teacher.type('y=1/x');
    await teacher.press('Enter');
    await untilMarks(student, 5);
    await press(teacher, '^For this formula$');
    await press(teacher, '^Draw its graph$');
    await until(
      teacher,
      'both branches of 1/x',
      () => document.querySelectorAll('[data-testid=plot-preview] path[stroke="#0072b2"]').length === 2,
    );
    await press(teacher, '^Put on the page$');
    await untilMarks(student, 6);
    await press(teacher, '^Colour and options of the text');
    await press(teacher, '^Chart$');
    await until(teacher, 'the table', () => {
      const table = document.querySelector('[role=dialog] textarea');
      table?.focus();
      table?.select();
      return Boolean(table);
    });
    await teacher.type('3;4');
    await until(teacher, 'a bar', () =>
      Boolean(document.querySelector('[data-testid=chart-preview] path[fill="#0072b2"]')),
    );
    await press(teacher, '^Put on the page$');
    await untilMarks(student, 7);
    await teacher.press('Escape');
  },

  'the page plays again, step by step': async ({ teacher }) => {
    const time = () => Number(document.querySelector('[data-testid=replay-page]')?.dataset.time ?? -1);
    await press(teacher, '^Show all pages$');
    await press(teacher, '^What to do with page 1$');
    await press(teacher, '^Play again$');
    await until(teacher, 'the picture', () =>
      Boolean(document.querySelector('[data-testid=replay-page]')?.dataset.time),
    );
    const before = await teacher.run(time);
    await press(teacher, '^One step on$');
    await press(teacher, '^One step on$');
    await until(
      teacher,
      'a later moment',
      (last) => Number(document.querySelector('[data-testid=replay-page]').dataset.time) > last,
      before,
    );
    await press(teacher, '^Close$');
    await press(teacher, '^Show all pages$');
  },

  'an explanation is recorded, with a voice where the browser has one, plays again, and by a link': async ({
    teacher,
    student,
  }) => {
    const inDialog = (selector) => Boolean(document.querySelector(`[role=dialog] ${selector}`));
    await press(teacher, '^Explanations$');
    await until(teacher, 'a microphone, or why there is none', inDialog, ':is([role=meter], [role=alert])');
    const hears = await teacher.run(inDialog, '[role=meter]');
    const records = await teacher.run(
      () => typeof MediaRecorder === 'function' && Boolean(globalThis.navigator.mediaDevices?.getUserMedia),
    );
    if (hears && !records) throw new Error('a microphone is shown that cannot be recorded');
    await press(teacher, '^Record$');
    await until(
      teacher,
      'two seconds',
      () => Number(document.querySelector('[data-recording] [role=timer]')?.textContent.slice(-1)) >= 2,
    );
    await press(teacher, '^Finish$');
    await until(teacher, 'the end', () => !document.querySelector('[data-recording]'));
    await press(teacher, '^Explanations$');
    await press(teacher, '^Play$');
    const status = (text) =>
      document.querySelector('[data-testid=replay-status]')?.textContent.includes(text);
    await until(teacher, 'the player', status, '0:00 of');
    await press(teacher, '^Play$');
    await until(teacher, 'a later moment', status, '0:01 of');
    await press(teacher, '^Take it along$');
    await press(teacher, '^Make the link$');
    const link = await until(teacher, 'the link', () => document.querySelector('input[readonly]')?.value);
    const inClass = await student.run(() => location.href);
    await student.goto(link);
    await until(student, 'the player of the link', status, '0:00 of');
    await press(student, '^Play$');
    await until(student, 'a later moment by the link', status, '0:01 of');
    await student.goto(inClass);
    await shown(student);
    await press(teacher, '^Close$');
    await press(teacher, '^Close$');
  },

  'what this browser lacks is not offered': async ({ teacher }) => {
    const lacks = await teacher.run(() => ({
      screens: typeof globalThis.navigator.mediaDevices?.getDisplayMedia !== 'function',
      smallWindow: !('documentPictureInPicture' in window),
    }));
    if (lacks.smallWindow && (await has(teacher, 'small window')))
      throw new Error('a small window is offered');
    await press(teacher, '^Show$');
    await until(teacher, 'the menu', () => Boolean(document.querySelector('[role=menu]')));
    const offered = await has(teacher, '^A screen, window or tab$');
    if (Boolean(offered) === lacks.screens)
      throw new Error(`screens: lacks ${lacks.screens}, offered ${Boolean(offered)}`);
    await teacher.press('Escape');
  },

  'cards of an exercise are put where they belong by the student, who is told what is right': async ({
    teacher,
    student,
  }) => {
    await press(teacher, '^Bring in$');
    await press(teacher, '^An exercise from a list$');
    await until(teacher, 'the list', () => {
      const list = document.querySelector('[role=dialog] textarea');
      list?.focus();
      return Boolean(list);
    });
    await teacher.type('dog = Hund');
    await teacher.press('Enter');
    await teacher.type('cat = Katze');
    await press(teacher, '^Put it on a new page$');
    const way = await until(student, 'the cards', () => {
      const { marks } = globalThis.doodla.stageState();
      const cards = document.querySelectorAll('button[aria-label^="To be moved"]');
      if (cards.length !== 2) return undefined;
      const place = marks.find(({ rule }) => rule?.takes);
      const card = marks.find(({ id }) => place.rule.takes.things[0] === id);
      return [card, place].map(({ bounds: { x, y, width, height } }) => [x + width / 2, y + height / 2]);
    });
    const [[fromX, fromY], [toX, toY]] = way;
    await draw(student, [way[0], [(fromX + toX) / 2, (fromY + toY) / 2], way[1]]);
    await until(student, 'what is said of it', () =>
      [...document.querySelectorAll('[role=status]')].some(({ textContent }) => textContent === 'Right'),
    );
    await press(teacher, '^Results$');
    await until(teacher, 'the figures', () =>
      document.querySelector('[role=dialog]')?.textContent.includes('1 / 2'),
    );
    await press(teacher, '^Close$');
    await press(teacher, '^Previous page$');
  },

  'the handout has the page, the ink and the words, for another program': async ({ teacher }) => {
    await press(teacher, '^Hand out$');
    await press(teacher, '^Make the PDF$');
    const encoded = await until(teacher, 'the PDF', async () => {
      const link = document.querySelector('a[download$=".pdf"]');
      if (!link) return undefined;
      const reader = new globalThis.FileReader();
      reader.readAsDataURL(await (await fetch(link.href)).blob());
      await new Promise((resolve) => (reader.onload = resolve));
      return reader.result.split(',')[1];
    });
    const folder = mkdtempSync(join(tmpdir(), 'doodla-browsers-'));
    const path = join(folder, 'handout.pdf');
    writeFileSync(path, Buffer.from(encoded, 'base64'));
    execFileSync('qpdf', ['--check', path], { stdio: 'ignore' });
    const text = execFileSync('pdftotext', [path, '-'], { encoding: 'utf8' });
    rmSync(folder, { recursive: true });
    for (const words of ['Bridges, sheet 1', 'Arches push', 'Bridges, sheet 2'])
      if (!text.includes(words)) throw new Error(`not in the handout: ${words}`);
    await teacher.press('Escape');
  },

  'the class ends, and what was written stays with the student': async ({ teacher, student }) => {
    await press(teacher, '^End class$');
    await press(teacher, '^Keep and end$');
    await until(student, 'the end', () => document.body.innerText.includes('This class has ended'));
    await untilMarks(student, 7);
  },
};

/** Opens the two windows that the steps go on in. */
export async function begin(browser, { url, port }) {
  const teacher = await browser.open(SIZE);
  const student = await browser.open(SIZE);
  return { teacher, student, url, port };
}
