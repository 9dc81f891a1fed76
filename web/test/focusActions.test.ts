import type { Scene } from '@doodla/core';
import { EMPTY_SCENE, isScenePart } from '@doodla/core';
import { describe, expect, it } from 'vitest';
import { Store } from '@doodla/core/client';
import { aPage } from '../../core/test/helpers/marks';
import {
  countdown,
  cover,
  coverAgain,
  magnifier,
  spotlight,
  stopwatch,
  twoPages,
} from '../src/focus/focusActions';
import type { LeadingDesk } from '../src/focus/focusActions';

const PAGE = { x: 0, y: 0, width: 1000, height: 700 };

/** A class on the first of some pages, of which a part is in sight. */
function teaching(pages = ['p1', 'p2'], seen = PAGE) {
  const scene = new Store<Scene>(EMPTY_SCENE);
  const classroom = { scene, now: 5000, setScene: (set: Partial<Scene>) => scene.patch(set) };
  const desk: LeadingDesk = {
    classroom,
    page: aPage({ id: 'p1' }),
    pageId: new Store<string | undefined>('p1'),
    pages: new Store(pages.map((id) => aPage({ id }))),
    extentOf: () => PAGE,
    visible: () => seen,
    settle: () => undefined,
  };
  return { desk, scene };
}

describe('leading the eye', () => {
  it.each([
    ['a spotlight', spotlight],
    ['a magnifier', magnifier],
  ])('begins %s in the middle of what is in sight, and ends it by the same action', (_, action) => {
    const { desk, scene } = teaching(['p1'], { x: 600, y: 300, width: 800, height: 800 });
    action(desk);
    const { focus } = scene.get();
    expect(isScenePart({ focus })).toBe(true);
    // In sight are 400 by 400 units of the page.
    expect(focus!.x + focus!.width / 2).toBe(800);
    expect(focus!.y + focus!.height / 2).toBe(500);
    action(desk);
    expect(scene.get().focus).toBeNull();
  });

  it('covers the whole page, and takes the place of what was there', () => {
    const { desk, scene } = teaching();
    spotlight(desk);
    cover(desk);
    expect(scene.get().focus).toEqual({ kind: 'cover', page: 'p1', shared: true, ...PAGE });
  });

  it('covers answers again', () => {
    const { desk, scene } = teaching();
    scene.patch({ uncovered: ['m1', 'm2'] });
    coverAgain(desk);
    expect(scene.get().uncovered).toEqual([]);
  });
});

describe('time', () => {
  it('is three minutes unless others are asked for, from now on, and is taken away by the same action', () => {
    const { desk, scene } = teaching();
    countdown(desk);
    expect(scene.get().timer).toMatchObject({ kind: 'countdown', length: 180_000, startedAt: 5000 });
    countdown(desk);
    expect(scene.get().timer).toBeNull();
    countdown(desk, 10);
    expect(scene.get().timer?.length).toBe(600_000);
    stopwatch(desk);
    expect(scene.get().timer?.kind).toBe('stopwatch');
    expect(isScenePart({ timer: scene.get().timer })).toBe(true);
  });
});

describe('two pages', () => {
  it('are this one and the next, or the one before at the end; then this one alone again', () => {
    const { desk, scene } = teaching();
    twoPages(desk);
    expect(scene.get().split).toEqual({ page: 'p2', at: 0.5 });
    twoPages(desk);
    expect(scene.get().split).toBeNull();
    const last = teaching(['p0', 'p1']);
    twoPages(last.desk);
    expect(last.scene.get().split?.page).toBe('p0');
  });
});
