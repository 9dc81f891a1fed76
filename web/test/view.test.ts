import { MAX_PAGE_SIDE } from '@doodla/core';
import { describe, expect, it } from 'vitest';
import {
  arrangementFor,
  fitPage,
  fitWidth,
  MAX_SCALE,
  MIN_SCALE,
  panBy,
  roomFor,
  toPage,
  visibleRect,
  zoomAt,
} from '../src/canvas/view';

const STAGE = { width: 1280, height: 800 };
const ROOM = { left: 172, right: 12, top: 66, bottom: 66 };
const A4 = { x: 0, y: 0, width: 794, height: 1123 };
const SLIDE = { x: 0, y: 0, width: 1280, height: 720 };

describe('view of a page', () => {
  it('fits the whole page into the room that the tools leave', () => {
    for (const page of [A4, SLIDE]) {
      for (const side of ['left', 'right'] as const) {
        const room = roomFor(arrangementFor(page, STAGE), side);
        const { scale, x, y } = fitPage(page, STAGE, room);
        expect(x).toBeGreaterThanOrEqual(room.left - 1e-6);
        expect(y).toBeGreaterThanOrEqual(room.top - 1e-6);
        expect(x + page.width * scale).toBeLessThanOrEqual(STAGE.width - room.right + 1e-6);
        expect(y + page.height * scale).toBeLessThanOrEqual(STAGE.height - room.bottom + 1e-6);
      }
    }
  });

  it('puts the tools beside tall pages and above wide ones', () => {
    expect(arrangementFor(A4, STAGE)).toBe('columns');
    expect(arrangementFor(SLIDE, STAGE)).toBe('bars');
    expect(arrangementFor(A4, { width: 390, height: 844 })).toBe('bars');
  });

  it('enlarges round the point under the pointer', () => {
    const before = fitWidth(A4, STAGE, ROOM);
    const at = { x: 600, y: 300 };
    const after = zoomAt(before, 1.5, at, A4, STAGE);
    expect(toPage(after, at.x, at.y).x).toBeCloseTo(toPage(before, at.x, at.y).x);
    expect(toPage(after, at.x, at.y).y).toBeCloseTo(toPage(before, at.x, at.y).y);
  });

  it('stays within its limits', () => {
    let view = fitWidth(A4, STAGE, ROOM);
    for (let i = 0; i < 40; i++) view = zoomAt(view, 2, { x: 0, y: 0 }, A4, STAGE);
    expect(view.scale).toBe(MAX_SCALE);
    for (let i = 0; i < 40; i++) view = zoomAt(view, 0.5, { x: 0, y: 0 }, A4, STAGE);
    expect(view.scale).toBe(MIN_SCALE);
  });

  it('fits the longest page there can be, also on a phone', () => {
    const page = { x: 0, y: 0, width: 400, height: MAX_PAGE_SIDE };
    const { y, scale } = fitPage(page, { width: 390, height: 844 }, ROOM);
    expect(y).toBeGreaterThanOrEqual(ROOM.top);
    expect(y + page.height * scale).toBeLessThanOrEqual(844 - ROOM.bottom + 1e-6);
  });

  it('keeps a page that is as wide as its room beside the tools, however it is moved', () => {
    let view = fitWidth(A4, STAGE, ROOM);
    expect([view.x, view.scale * A4.width]).toEqual([172, STAGE.width - 184]);
    view = panBy(view, -300, -80, A4, STAGE, ROOM);
    expect(view.x).toBeCloseTo(172);
    expect(zoomAt(view, 0.5, { x: 0, y: 0 }, A4, STAGE, ROOM).x).toBeGreaterThan(172);
  });

  it('never pans the page out of sight', () => {
    const view = panBy(fitWidth(A4, STAGE, ROOM), -99_999, -99_999, A4, STAGE);
    const { x, y } = visibleRect(view, STAGE);
    expect(x).toBeLessThan(A4.width);
    expect(y).toBeLessThan(A4.height);
  });
});
