import type { ClassState, Focus, Mark, Page, Pane, Rect, Scene } from '@doodla/core';
import { EMPTY_SCENE, isBoundless, SpatialIndex } from '@doodla/core';
import { Store } from '@doodla/core/client';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { aPage, patchOver } from '../../core/test/helpers/marks';
import { Placing } from '../src/stage/placing';
import { SharedSight } from '../src/stage/sharedSight';
import { uncover } from '../src/stage/uncover';

const PAGE = aPage({ width: 800, height: 600 });
const WINDOW = { width: 1280, height: 800 };
const TOOLS = { x: 8, y: 70, width: 152, height: 660 };

/** A desk with one page in a window, and the class that it may be in. */
class PlacedPage {
  page: Page = PAGE;
  focus: Focus | undefined;
  field: Rect | undefined;
  readonly pageId = new Store<string | undefined>(PAGE.id);
  isTeacher = false;
  readonly isBeside = false;
  readonly apart = new Store(false);
  readonly room = { device: undefined, seat: undefined };
  live = false;
  panes: readonly Pane[] = [];
  bars = [TOOLS];
  isWriting = false;
  compact = false;
  readonly screen = { isLive: () => this.live, panesOf: () => this.panes };
  readonly scene = new Store<Scene>(EMPTY_SCENE);
  readonly setScene = vi.fn<(set: Partial<Scene>, passing?: boolean) => void>((set) => this.scene.patch(set));
  readonly state = new Store<ClassState | undefined>({ page: PAGE.id, ended: false } as ClassState);
  readonly placing = new Placing(this, {
    bars: () => this.bars,
    scale: () => 1,
    compact: () => this.compact,
  });

  constructor() {
    this.placing.size = WINDOW;
    this.placing.applyFit();
  }

  get classroom() {
    const { scene, state, setScene } = this;
    return { scene, state, setScene } as unknown as NonNullable<
      ConstructorParameters<typeof SharedSight>[0]['classroom']
    >;
  }

  extentOf = (page: Page) => ({
    x: 0,
    y: 0,
    width: isBoundless(page) ? 100 : page.width,
    height: isBoundless(page) ? 100 : page.height,
  });

  /** Where a place of the page is in the window. */
  seenAt(x: number, y: number): { x: number; y: number } {
    const view = this.placing.view.get();
    return { x: view.x + x * view.scale, y: view.y + y * view.scale };
  }
}

let desk: PlacedPage;
beforeEach(() => {
  desk = new PlacedPage();
});

describe('a student’s own field', () => {
  it('fills the room between the bars until they look at the whole page, and again when it becomes theirs', () => {
    const desk = new PlacedPage();
    const { placing } = desk;
    desk.field = { x: 400, y: 300, width: 400, height: 300 };
    expect(placing.takeRegion()).toBe(true);
    placing.applyFit();
    const topLeft = desk.seenAt(400, 300);
    const bottomRight = desk.seenAt(800, 600);
    expect(topLeft.x).toBeGreaterThan(TOOLS.x + TOOLS.width);
    expect(bottomRight.x).toBeLessThanOrEqual(WINDOW.width);
    expect(bottomRight.y - topLeft.y).toBeGreaterThan(WINDOW.height * 0.8);
    placing.setFit('page');
    expect(desk.seenAt(0, 0).x).toBeGreaterThanOrEqual(0);
    // Told again of the same field, they stay as they are.
    desk.field = { ...desk.field };
    expect(placing.takeRegion()).toBe(false);
    expect(placing.fit.get()).toBe('page');
    placing.setFit('region');
    expect(desk.seenAt(400, 300)).toEqual(topLeft);
    desk.field = undefined;
    expect(placing.takeRegion()).toBe(true);
    expect(placing.fit.get()).toBe('page');
  });
});

describe('how a page lies', () => {
  it('whole beside the bars, and anew when they change', () => {
    expect(desk.seenAt(0, 0).x).toBeGreaterThanOrEqual(TOOLS.x + TOOLS.width);
    expect(desk.seenAt(800, 600).x).toBeLessThanOrEqual(WINDOW.width);
    const before = desk.placing.view.get().scale;
    desk.bars = [{ ...TOOLS, width: 600 }];
    desk.placing.barsChanged();
    expect(desk.placing.view.get().scale).toBeLessThan(before);
    expect(desk.placing.sides.left).toBeGreaterThanOrEqual(608);
  });

  it('stays where a hand has moved it, whatever bars come', () => {
    desk.placing.zoom(4, { x: 640, y: 400 });
    desk.placing.pan(-30, 10);
    const moved = desk.placing.view.get();
    desk.bars = [];
    desk.placing.barsChanged();
    expect(desk.placing.view.get()).toEqual(moved);
    desk.placing.setFit('width');
    expect(desk.placing.view.get().scale).not.toBe(moved.scale);
  });

  it('keeps the place under the fingers while it is enlarged', () => {
    const at = { x: 700, y: 300 };
    const place = desk.placing.toPage(at.x, at.y);
    desk.placing.zoom(3, at);
    expect(desk.seenAt(place.x, place.y).x).toBeCloseTo(at.x);
    expect(desk.seenAt(place.x, place.y).y).toBeCloseTo(at.y);
    expect(desk.placing.fitsAcross(PAGE)).toBe(false);
  });

  it('is enlarged where one types, and lies as before afterwards', () => {
    const fitted = desk.placing.view.get();
    const done = desk.placing.lookCloser({ x: 600, y: 500 }, 3);
    expect(desk.placing.view.get().scale).toBeCloseTo(3);
    // As far to the left as the page may be moved.
    expect(desk.seenAt(600, 500).x).toBeGreaterThanOrEqual(0);
    expect(desk.seenAt(600, 500).x).toBeLessThan(WINDOW.width / 3);
    expect(desk.seenAt(600, 500).y).toBeGreaterThan(0);
    expect(desk.seenAt(600, 500).y).toBeLessThan(WINDOW.height);
    done();
    expect(desk.placing.view.get()).toEqual(fitted);
    desk.placing.zoom(5);
    const byHand = desk.placing.view.get();
    desk.placing.lookCloser({ x: 10, y: 10 }, 3)();
    expect(desk.placing.view.get()).toEqual(byHand);
  });

  it('takes the whole width of a hand-held screen, between the bars above and below', () => {
    desk.compact = true;
    desk.placing.size = { width: 390, height: 844 };
    desk.bars = [
      { x: 130, y: 4, width: 256, height: 44 },
      { x: 0, y: 796, width: 390, height: 48 },
    ];
    desk.placing.applyFit();
    expect(desk.placing.arrangement.get()).toBe('bars');
    expect(desk.seenAt(0, 0).x).toBeCloseTo(4);
    expect(desk.seenAt(800, 0).x).toBeCloseTo(386);
    desk.bars = [];
    desk.placing.applyFit();
    expect(desk.seenAt(800, 0).x).toBeCloseTo(386);
  });

  it('is as large as the window while nothing else is shown', () => {
    desk.placing.setAlone(true);
    expect(desk.seenAt(0, 0).y).toBeCloseTo(0);
    expect(desk.seenAt(0, 600).y).toBeCloseTo(WINDOW.height);
    desk.placing.setAlone(false);
    expect(desk.seenAt(0, 0).x).toBeGreaterThan(TOOLS.x + TOOLS.width);
  });

  it('shows a region that fills the window, and then the whole page again', () => {
    const region = {
      kind: 'enlarged',
      page: PAGE.id,
      shared: true,
      x: 100,
      y: 100,
      width: 200,
      height: 100,
    } as const;
    desk.focus = region;
    expect(desk.placing.takeRegion()).toBe(true);
    desk.placing.applyFit();
    const { visible } = desk.placing;
    expect(visible.width).toBeLessThan(240);
    expect(visible.x).toBeGreaterThan(60);
    desk.focus = { ...region };
    expect(desk.placing.takeRegion()).toBe(false);
    desk.focus = undefined;
    expect(desk.placing.takeRegion()).toBe(true);
    desk.placing.applyFit();
    expect(desk.placing.visible.width).toBeGreaterThan(800);
  });

  it('of a live screen follows what its main part has moved by', () => {
    desk.live = true;
    desk.placing.screenMoved();
    const still = desk.placing.view.get();
    const region = { x: 0, y: 0, width: 800, height: 600 };
    desk.panes = [{ id: 1, region, place: { x: 0, y: -120, scale: 1 } }];
    desk.placing.screenMoved();
    expect(desk.placing.view.get().y).toBeCloseTo(still.y - 120 * still.scale);
    expect(desk.placing.glass).toEqual(still);
  });

  it('can be moved far from what is on a boundless page, but not for ever', () => {
    desk.page = aPage({
      surface: { kind: 'blank', colour: '#ffffff', ruling: 'plain', spacing: 20, boundless: true },
    });
    desk.placing.applyFit();
    desk.placing.centreOn(5000, -4000);
    const { visible } = desk.placing;
    expect(visible.x + visible.width / 2).toBeCloseTo(5000);
    desk.placing.centreOn(1e6, 0);
    expect(desk.placing.visible.x).toBeLessThan(1e4);
  });
});

describe('what the teacher sees', () => {
  const SIGHT = { page: PAGE.id, x: 200, y: 100, width: 200, height: 150 };
  const follows = () => new SharedSight(desk, desk.placing, () => desk.isWriting);
  /** The middle of what is in sight, beside the bars. */
  const middle = () => {
    const { size, room } = desk.placing;
    return desk.placing.toPage(
      (room.left + size.width - room.right) / 2,
      (room.top + size.height - room.bottom) / 2,
    );
  };

  it('is kept in sight, and afterwards the whole page', () => {
    const sight = follows();
    const whole = desk.placing.view.get();
    desk.scene.patch({ sight: SIGHT });
    sight.follow();
    expect(middle().x).toBeCloseTo(300);
    expect(middle().y).toBeCloseTo(175);
    desk.scene.patch({ sight: null });
    sight.follow();
    expect(desk.placing.view.get()).toEqual(whole);
  });

  it.each([
    ['a hand writes', () => (desk.isWriting = true)],
    ['one looks for oneself', () => desk.apart.set(true)],
    ['the class is over', () => desk.state.set({ page: PAGE.id, ended: true } as ClassState)],
    ['it is of another page', () => desk.pageId.set('other')],
    ['a screen is shown live', () => (desk.live = true)],
    ['it is the teacher who looks', () => (desk.isTeacher = true)],
  ])('moves nothing while %s', (_why, happens) => {
    const sight = follows();
    const before = desk.placing.view.get();
    desk.scene.patch({ sight: SIGHT });
    happens();
    sight.follow();
    expect(desk.placing.view.get()).toEqual(before);
  });

  it('is left by who moves the page, and by nobody while nothing is led', () => {
    const sight = follows();
    sight.goApart();
    expect(desk.apart.get()).toBe(false);
    desk.scene.patch({ sight: SIGHT });
    sight.goApart();
    expect(desk.apart.get()).toBe(true);
  });

  describe('is told', () => {
    afterEach(() => vi.useRealTimers());

    it('by the teacher’s own screen while it moves and once it rests, and not while the whole page is in sight', async () => {
      desk.isTeacher = true;
      const sight = follows();
      await vi.waitFor(() => {
        sight.tell();
        desk.placing.zoom(4);
        sight.tell();
        expect(desk.setScene).toHaveBeenCalled();
      });
      expect(desk.setScene.mock.lastCall![1]).toBe(true);
      await vi.waitFor(() => expect(desk.setScene.mock.lastCall![1]).toBeUndefined());
      expect(desk.scene.get().sight).toMatchObject({ page: PAGE.id });
      desk.placing.setFit('page');
      sight.tell();
      expect(desk.scene.get().sight).toBeNull();
      sight.stop();
    });

    it('not of a page that the class is not on', async () => {
      desk.isTeacher = true;
      desk.state.set({ page: 'other', ended: false } as ClassState);
      const sight = follows();
      await vi.dynamicImportSettled();
      desk.placing.zoom(4);
      sight.tell();
      expect(desk.setScene).not.toHaveBeenCalled();
    });
  });
});

describe('a patch', () => {
  const PATCH = { ...patchOver(PAGE.id), id: 'patch' };
  const covered = (marks: Mark[] = [PATCH], tool = 'pen') => ({
    classroom: desk.classroom,
    isTeacher: true,
    page: PAGE,
    penCase: { get: () => ({ tool }) } as never,
    layers: [{ on: () => new SpatialIndex(marks) }] as never,
  });

  it('is taken away by a touch of the teacher’s on it, once', () => {
    expect(uncover(covered(), { x: 20, y: 20 })).toBe(false);
    expect(uncover(covered(), { x: 100, y: 60 })).toBe(true);
    expect(desk.scene.get().uncovered).toEqual(['patch']);
    expect(uncover(covered(), { x: 100, y: 60 })).toBe(false);
  });

  it('stays for students, after the class, without one, and for who selects', () => {
    const at = { x: 100, y: 60 };
    expect(uncover({ ...covered(), isTeacher: false }, at)).toBe(false);
    expect(uncover({ ...covered(), classroom: undefined }, at)).toBe(false);
    expect(uncover(covered([PATCH], 'select'), at)).toBe(false);
    desk.state.set({ page: PAGE.id, ended: true } as ClassState);
    expect(uncover(covered(), at)).toBe(false);
    expect(desk.setScene).not.toHaveBeenCalled();
  });
});
