import type { AnswerRule, Scene, StandIn } from '@doodla/core';
import type { CDPSession, Page } from '@playwright/test';
import { expect } from '@playwright/test';

/** What the open page says of itself, for tests. */
export interface StageState {
  /** Marks on the shown page, by id. */
  marks: {
    id: string;
    kind: string;
    author: string;
    colour: string;
    fill: string | null;
    bounds: { x: number; y: number; width: number; height: number };
    text?: string;
    rule?: AnswerRule | null;
    standIn?: StandIn;
  }[];
  /** The screen that is shown live. */
  screen: {
    page: string;
    panes: { id: number; place: { x: number; y: number; scale: number } }[];
    certain: boolean;
  } | null;
  /** The shown page. */
  page: string;
  /** What is set up for the class. */
  scene: Scene | null;
  /** Where people point, page units. */
  pointing: { x: number; y: number }[];
  /** Strokes of others that are no marks, and own ones that fade. */
  wet: number;
  /** Of the shown page, page units. */
  width: number;
  waiting: number;
  scale: number;
  /** Window pixels of the page's upper left corner. */
  x: number;
  y: number;
}

export function stageState(page: Page): Promise<StageState> {
  return page.evaluate(() =>
    (window as unknown as { doodla: { stageState(): StageState } }).doodla.stageState(),
  );
}

/** Of the page beside the first, while two are shown. */
export function sideState(page: Page): Promise<StageState> {
  return page.evaluate(() =>
    (window as unknown as { doodla: { sideState(): StageState } }).doodla.sideState(),
  );
}

export async function markCount(page: Page): Promise<number> {
  return (await stageState(page)).marks.length;
}

/** Waits until the shown page has so many marks and the server has stored all of this client's. */
export async function expectMarks(page: Page, count: number): Promise<void> {
  await expect
    .poll(async () => {
      const { marks, waiting } = await stageState(page);
      return { marks: marks.length, waiting };
    })
    .toEqual({ marks: count, waiting: 0 });
}

/** A place in the window for a place on the page (page units). */
export async function at(page: Page, x: number, y: number): Promise<[number, number]> {
  const state = await stageState(page);
  return [state.x + x * state.scale, state.y + y * state.scale];
}

/** Frames for which the page has to lie still before it is taken to stay there. */
const STILL_FRAMES = 6;

/** Waits until the page lies still: it is fitted anew when bars come or the teacher moves it. */
async function lyingStill(page: Page): Promise<void> {
  await page.evaluate((frames) => {
    const { doodla } = window as unknown as { doodla: { stageState(): StageState } };
    return new Promise<void>((done) => {
      let [last, same] = ['', 0];
      const look = () => {
        const { scale, x, y } = doodla.stageState();
        const now = [scale, x, y].join();
        same = now === last ? same + 1 : 0;
        last = now;
        if (same < frames) requestAnimationFrame(look);
        else done();
      };
      look();
    });
  }, STILL_FRAMES);
}

const mice = new WeakMap<Page, Promise<CDPSession>>();

/** The mouse of a page, told without Playwright, which waits for each event before the next. */
function mouseOf(page: Page): Promise<CDPSession> {
  const known = mice.get(page) ?? page.context().newCDPSession(page);
  mice.set(page, known);
  return known;
}

/** Draws through places on the page with the mouse. */
export async function draw(page: Page, points: readonly [number, number][]): Promise<void> {
  const [first, ...rest] = await inWindow(page, points);
  const cdp = await mouseOf(page);
  const send = (
    type: 'mousePressed' | 'mouseMoved' | 'mouseReleased',
    [x, y]: [number, number],
    buttons = 1,
  ) =>
    cdp.send('Input.dispatchMouseEvent', {
      ...{ type, x, y, buttons, clickCount: 1 },
      button: buttons === 0 ? 'none' : 'left',
    });
  await send('mouseMoved', first!, 0);
  await send('mousePressed', first!);
  for (const place of rest.slice(0, -1)) await send('mouseMoved', place);
  const last = rest.at(-1) ?? first!;
  // In one go: on a busy machine a pause in between would be a hand that rests.
  await Promise.all([send('mouseMoved', last), send('mouseReleased', last)]);
}

/** Draws as `draw` does, and stays on the page. */
export async function drawAndRest(page: Page, points: readonly [number, number][]): Promise<void> {
  const [first, ...rest] = await inWindow(page, points);
  await page.mouse.move(...first!);
  await page.mouse.down();
  for (const point of rest) await page.mouse.move(...point);
}

/** Places in the window for places on the page, once that lies still. */
async function inWindow(page: Page, points: readonly [number, number][]): Promise<[number, number][]> {
  await lyingStill(page);
  const { x, y, scale } = await stageState(page);
  return points.map(([px, py]) => [x + px * scale, y + py * scale]);
}

/** A wavy line to the right from a place on the page. */
export function wave(x: number, y: number, length = 120): [number, number][] {
  return Array.from({ length: 6 }, (_, i) => [x + (i * length) / 5, y + 12 * Math.sin(i * 2.4)]);
}

/** Types a text at a place on the page. */
export async function typeAt(page: Page, x: number, y: number, text: string): Promise<void> {
  await page.keyboard.press('t');
  await page.mouse.click(...(await at(page, x, y)));
  const box = page.getByLabel('Text on the page');
  await expect(box).toBeFocused();
  await page.keyboard.type(text);
  await expect(box).toHaveText(text);
  await page.keyboard.press('Escape');
}
