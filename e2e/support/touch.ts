import type { CDPSession, Page } from '@playwright/test';
import { stageState } from './stage';

/** Draws with one finger through places on the page (page units). */
export async function drawByFinger(
  page: Page,
  cdp: CDPSession,
  points: readonly [number, number][],
): Promise<void> {
  const { x, y, scale } = await stageState(page);
  const [first, ...rest] = points.map(([px, py]) => ({ x: x + px * scale, y: y + py * scale, id: 1 }));
  await cdp.send('Input.dispatchTouchEvent', { type: 'touchStart', touchPoints: [first!] });
  for (const point of rest.slice(0, -1))
    await cdp.send('Input.dispatchTouchEvent', { type: 'touchMove', touchPoints: [point] });
  // In one go: on a busy machine a pause in between would be a hand that rests.
  await Promise.all([
    cdp.send('Input.dispatchTouchEvent', { type: 'touchMove', touchPoints: rest.slice(-1) }),
    cdp.send('Input.dispatchTouchEvent', { type: 'touchEnd', touchPoints: [] }),
  ]);
}
