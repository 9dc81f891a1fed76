// Takes the pictures in docs/screenshots from a freshly seeded demo: node e2e/screenshots.mjs
import { chromium } from '@playwright/test';
import { spawn } from 'node:child_process';
import { once } from 'node:events';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { shootCompanion } from './companionShot.mjs';

const path = (relative) => fileURLToPath(new URL(relative, import.meta.url));
const data = mkdtempSync(join(tmpdir(), 'doodla-shots-'));
const PORT = 4691;
const BASE = `http://localhost:${PORT}`;
const demo = spawn(process.execPath, [path('../demo/dist/main.js')], {
  env: { ...process.env, DOODLA_DATA: data, DOODLA_PORT: String(PORT) },
  stdio: ['ignore', 'pipe', 'inherit'],
});
await once(demo.stdout, 'data');
const browser = await chromium.launch({ executablePath: '/usr/bin/chromium', args: ['--no-sandbox'] });
const BRIDGE_WORDS = [
  'arch = It carries by its round form',
  'pillar = It stands under the deck',
  'cable = A suspension bridge hangs from it',
  'deck = The part one walks or drives on',
  'beam = The simplest bridge is one',
  'truss = A frame of triangles',
  'river = What most bridges cross',
].join('\n');

const shot = (page, name) => page.screenshot({ path: path(`../docs/screenshots/${name}.png`) });
const shown = (page) => page.locator('[data-testid=stage][data-shown=true]').waitFor();

async function open(viewport) {
  const page = await (await browser.newContext({ baseURL: BASE, viewport })).newPage();
  await page.goto('/');
  return page;
}

async function signIn(viewport = { width: 1280, height: 800 }) {
  const page = await open(viewport);
  await page.getByRole('button', { name: 'Sign in as the demo teacher' }).click();
  await page.getByRole('heading', { name: 'Your lessons' }).waitFor();
  return page;
}

async function joinAs(name, viewport) {
  const page = await open(viewport);
  await page.goto('/join/FGHJ34');
  await page.getByLabel('Your name').fill(name);
  await page.getByRole('button', { name: 'Go in' }).click();
  await shown(page);
  return page;
}

/** Draws on the page with the mouse; places are page units. */
async function draw(page, points) {
  const { x, y, scale } = await page.evaluate(() => window.doodla.stageState());
  const [first, ...rest] = points.map(([px, py]) => [x + px * scale, y + py * scale]);
  await page.mouse.move(...first);
  await page.mouse.down();
  for (const point of rest) await page.mouse.move(...point, { steps: 3 });
  await page.mouse.up();
}

const ring = (cx, cy, rx, ry) =>
  Array.from({ length: 26 }, (_, i) => [cx + rx * Math.cos(i / 4 - 1.7), cy + ry * Math.sin(i / 4 - 1.7)]);

const teacher = await signIn();
await teacher.locator('li img').nth(1).waitFor();
await shot(teacher, 'lessons');

await teacher.getByRole('link', { name: /worksheet/ }).click();
await shown(teacher);
await teacher.getByRole('button', { name: 'Show all pages' }).click();
await teacher.getByRole('button', { name: /^Colour and options/ }).click();
await teacher.getByRole('radio', { name: 'Vermilion' }).waitFor();
await shot(teacher, 'prepare');
await teacher.keyboard.press('Escape');
await teacher.getByRole('button', { name: /Classes/ }).click();
await teacher
  .getByRole('listitem')
  .filter({ hasText: '8 Linnet' })
  .getByRole('button', { name: 'Look' })
  .click();
await shown(teacher);
await teacher.getByRole('button', { name: 'Explanations', exact: true }).click();
await teacher.getByRole('button', { name: 'Play', exact: true }).click();
await teacher.locator('[data-testid=replay-page][data-time]').waitFor();
await teacher.getByRole('slider', { name: 'Time' }).fill('10500');
await teacher.getByRole('button', { name: 'Play', exact: true }).click();
await teacher.getByText('Draw the second arrow').waitFor();
await shot(teacher, 'replay');
await teacher.keyboard.press('Escape');
await teacher.keyboard.press('Escape');
await teacher.getByRole('button', { name: 'Hand out' }).click();
await teacher.getByLabel('Hand out as').waitFor();
await teacher.getByLabel('Title', { exact: true }).check();
await teacher.getByLabel('Page numbers').check();
await teacher.waitForFunction(() => {
  const [first] = document.querySelectorAll('[role=dialog] li canvas');
  return first && first.width > 0;
});
await shot(teacher, 'handout');
await teacher.getByRole('dialog').getByRole('button', { name: 'Close' }).click();

await teacher.goto('/');
await teacher.getByRole('link', { name: /how bridges work/ }).click();
await shown(teacher);
await teacher.keyboard.press('PageDown');
await teacher.keyboard.press('PageDown');
await shown(teacher);
await teacher.keyboard.press('m');
const place = async (px, py) => {
  const { x, y, scale } = await teacher.evaluate(() => window.doodla.stageState());
  await teacher.mouse.click(x + px * scale, y + py * scale);
};
await teacher.getByRole('button', { name: /^Colour and options/ }).click();
await teacher.getByRole('radio', { name: 'Counting number' }).click();
await teacher.keyboard.press('Escape');
for (const x of [370, 510, 650]) await place(x, 395);
await teacher.keyboard.press('n');
await place(1120, 190);
await teacher.keyboard.type('Which bars are pulled?');
await teacher.keyboard.press('Escape');
await teacher.keyboard.press('l');
await draw(teacher, [
  [1030, 200],
  [900, 262],
]);
await teacher.keyboard.press('s');
await teacher.getByRole('button', { name: /^Colour and options/ }).click();
await teacher.getByRole('radio', { name: 'Ellipse' }).click();
await teacher.getByRole('radio', { name: 'Vermilion' }).click();
await teacher.keyboard.press('Escape');
await draw(teacher, [
  [300, 240],
  [480, 380],
]);
await teacher.keyboard.press('v');
await place(390, 241);
await teacher.getByRole('toolbar', { name: 'Selected marks' }).waitFor();
await shot(teacher, 'marks');
await teacher.getByRole('button', { name: 'Shelf', exact: true }).click();
const keep = async (button) => {
  const kept = teacher.getByRole('list', { name: 'Your things' }).getByRole('listitem');
  const before = await kept.count();
  await teacher.getByRole('button', { name: button }).click();
  await kept.nth(before).locator('img').waitFor();
};
await keep('Keep selected');
await keep('Keep page');
await keep('Keep all pages');
for (const told of await teacher.getByText('is on your shelf').all()) await told.waitFor({ state: 'hidden' });
await shot(teacher, 'shelf');
await teacher.getByRole('button', { name: 'Close the shelf' }).click();
await teacher.keyboard.press('Escape');
await teacher.getByRole('button', { name: 'Bring in' }).click();
await teacher.getByRole('menuitem', { name: 'An exercise from a list' }).click();
await teacher.getByLabel('Kind of exercise').selectOption('crossword');
await teacher.getByLabel('List', { exact: true }).fill(BRIDGE_WORDS);
await teacher.getByText('This is an example').waitFor({ state: 'hidden' });
await shot(teacher, 'exercise');
await teacher.keyboard.press('Escape');

const display = await signIn({ width: 1920, height: 1080 });
await display.getByRole('link', { name: /how bridges work/ }).click();
await display.getByRole('button', { name: /Classes/ }).click();
await display
  .getByRole('listitem')
  .filter({ hasText: '8 Heron' })
  .getByRole('button', { name: 'Go on' })
  .click();
await shown(display);
await display.getByRole('button', { name: /^Pens/ }).waitFor();
const [wren, tove] = [
  await joinAs('Wren', { width: 1280, height: 800 }),
  await joinAs('Tove', { width: 390, height: 844 }),
];
await draw(display, ring(640, 330, 90, 60));
await draw(wren, [
  [300, 300],
  [330, 240],
  [420, 190],
  [520, 180],
]);
await draw(tove, [
  [980, 300],
  [950, 240],
  [860, 190],
  [760, 180],
]);
await display.waitForFunction(() => window.doodla.stageState().marks.length === 3);
await shot(display, 'class-on-display');
await wren.waitForFunction(() => window.doodla.stageState().marks.length === 3);
await shot(wren, 'student');
await tove.waitForFunction(() => window.doodla.stageState().marks.length === 3);
await shot(tove, 'student-on-phone');
await display.setViewportSize({ width: 1280, height: 800 });
await display.getByRole('button', { name: /^Join code/ }).click();
await display.getByRole('img', { name: /QR code/ }).waitFor();
await shot(display, 'join');

await display.keyboard.press('Escape');
const more = [];
for (const name of ['Ida Holm', 'Odo Vale', 'Nash', 'Runa'])
  more.push(await joinAs(name, { width: 1280, height: 800 }));
const work = async (entry) => {
  await display.getByRole('button', { name: /^How the class works/ }).click();
  const radio = display.getByRole('menuitemradio', { name: entry, exact: true });
  await radio.or(display.getByRole('menuitem', { name: entry, exact: true })).click();
};
await work('Own copies');
for (const [i, student] of [wren, ...more.slice(0, 3)].entries()) {
  await student.getByText('This is your own copy of the page').waitFor();
  await draw(student, ring(300 + i * 160, 300, 60, 60 + i * 10));
  if (i > 1) await draw(student, ring(700, 420, 120, 30));
}
await work('See all copies');
await display.getByRole('listitem').filter({ hasText: 'Nash' }).getByText('2 marks').waitFor();
await shot(display, 'copies');
await display.getByRole('button', { name: 'Close' }).click();
await work('All write');
await display.getByRole('button', { name: /^Students: / }).click();
await display.getByText('What students may do').click();
await shot(display, 'who-is-in-class');
await display.keyboard.press('Escape');
await display.getByRole('button', { name: 'Ask the class' }).click();
await display.getByLabel('Question (or say it aloud)').fill('What makes a bridge strong?');
await display.getByRole('radio', { name: 'Ideas on notes' }).click();
await display.getByRole('dialog').getByRole('button', { name: 'Ask', exact: true }).click();
const ideas = ['Triangles', 'Good steel', 'Thick ropes', 'A deep footing', 'No wind', 'Many pillars'];
for (const [i, idea] of ideas.entries()) {
  const student = [wren, ...more][i % 5];
  await student.getByLabel('Your idea').fill(idea);
  await student.getByLabel('Your idea').press('Enter');
  await display.getByRole('button', { name: new RegExp(`: ${idea}$`) }).waitFor();
}
await display.getByRole('button', { name: /: Thick ropes$/ }).click();
await display.getByRole('menuitem', { name: 'Put together with “Triangles”' }).click();
await display.getByRole('button', { name: 'Change the title “Group”' }).click();
await display.getByRole('textbox', { name: 'Title of the group' }).fill('How it is built');
await display.getByRole('button', { name: 'Keep', exact: true }).click();
await display.getByRole('button', { name: 'Change the title “How it is built”' }).waitFor();
await display.getByRole('button', { name: 'How ideas are collected' }).click();
await display.getByRole('menuitemradio', { name: '3 votes each' }).click();
await display.keyboard.press('Escape');
for (const [student, idea] of [
  [wren, 'Triangles'],
  [more[0], 'Triangles'],
  [more[1], 'Good steel'],
]) {
  await student.getByRole('button', { name: `Vote for: ${idea}` }).click();
}
await display.getByRole('button', { name: 'Chat and notes' }).click();
await display.getByLabel('Your message to everybody').fill('Three votes each. Choose well!');
await display.getByRole('button', { name: 'Send' }).click();
await display.getByText('Three votes each. Choose well!').waitFor();
await shot(display, 'ideas');
await display.getByRole('region', { name: 'Chat and notes' }).getByRole('button', { name: 'Close' }).click();
await display.getByRole('button', { name: 'Stop collecting; the notes stay' }).click();
await display.getByRole('button', { name: 'Previous page' }).click();
await display.getByRole('button', { name: 'Show', exact: true }).click();
await display.getByRole('menuitem', { name: 'A screen to practise with' }).click();
await display.waitForFunction(() => window.doodla.stageState().screen?.certain);
await display.keyboard.press('p');
await draw(display, ring(470, 345, 110, 26));
await display.waitForFunction(() => window.doodla.stageState().marks.length === 1);
await display.getByRole('button', { name: 'Scroll down' }).click();
await display.waitForFunction(() => window.doodla.stageState().screen?.panes[0]?.place.y === -240);
await shot(display, 'live-screen');

await display.getByRole('button', { name: 'Stop showing' }).click();
await display.keyboard.press('PageDown');
await shown(display);
await display.keyboard.press('6');
await draw(display, [
  [60, 590],
  [800, 650],
]);
await display.keyboard.press('a');
await display.keyboard.press('r');
await wren.getByTestId('spotlight').waitFor();
await display.getByRole('timer').waitFor();
await shot(display, 'focus');
await display.keyboard.press('Escape');
await display.getByRole('button', { name: 'Take the time away' }).click();
await display.getByRole('button', { name: /^Devices/ }).click();
await display.getByRole('button', { name: 'A display' }).click();
const wallCode = await display.getByTestId('device-code').innerText();
await display.getByRole('button', { name: 'A pad' }).click();
const padAddress = await display.getByTestId('pad-address').innerText();
await display.keyboard.press('Escape');
const wall = await open({ width: 1920, height: 1080 });
await wall.evaluate(() => window.localStorage.setItem('doodla.targetSize', 'display'));
await wall.goto('/display');
await wall.getByLabel('Code').fill(wallCode);
await wall.getByRole('button', { name: 'Connect' }).click();
await shown(wall);
const pad = await open({ width: 390, height: 780 });
await pad.goto(padAddress);
await shown(pad);
await pad.getByRole('button', { name: 'A band that moves on' }).click();
await pad.waitForFunction(() => window.doodla.stageState().scale > 0.45);
await shot(pad, 'pad');
await display.keyboard.press('8');
await wall.locator('[data-testid=stage]').nth(1).waitFor();
await draw(wall, ring(640, 330, 200, 80));
await display.waitForFunction(() => window.doodla.stageState().marks.some(({ kind }) => kind === 'stroke'));
await display.getByRole('button', { name: 'One page again' }).click();
await display.getByRole('button', { name: 'End class' }).click();
await display.getByLabel('Class', { exact: true }).fill('8 Heron');
await display
  .getByRole('img', { name: /with what was written/ })
  .first()
  .waitFor();
await display.getByRole('button', { name: 'Keep and end' }).click();
await display.getByRole('button', { name: /^Classes/ }).click();
await display.getByRole('heading', { name: 'Classes of this lesson' }).waitFor();

const reader = await signIn();
await reader.getByRole('link', { name: /^Standing up to load: how bridges work/ }).click();
await shown(reader);
await reader.getByRole('button', { name: 'Show all pages' }).click();
await reader
  .getByRole('button', { name: /Quillmere Mill/ })
  .first()
  .click();
await reader.getByRole('button', { name: 'Show all pages' }).click();
const story = reader.frameLocator('iframe[title="Web page"]').locator('p').first();
await story.waitFor();
await reader.keyboard.press('1');
await reader.keyboard.press('h');
const lines = await story.boundingBox();
await reader.mouse.move(lines.x + 120, lines.y + 60);
await reader.mouse.down();
await reader.mouse.move(lines.x + 420, lines.y + 60, { steps: 4 });
await reader.mouse.up();
await reader.waitForFunction(() => window.doodla.stageState().marks.length === 1);
await shot(reader, 'web-page');

await shootCompanion();

await browser.close();
demo.kill();
rmSync(data, { recursive: true, force: true });
