import type { Page, Pane, Rect, Sight } from '@doodla/core';
import { growRect, isBoundless, mainPlace } from '@doodla/core';
import { Store } from '@doodla/core/client';
import type { Arrangement, Fit, Room, Size, View } from '../canvas/view';
import {
  arrangementFor,
  centreOn,
  COMPACT_MARGIN,
  compactRoom,
  fitPage,
  fitWidth,
  MARGIN,
  panBy,
  roomFor,
  toPage,
  visibleRect,
  zoomAt,
} from '../canvas/view';
import type { PageDesk } from '../room/pageDesk';
import { roomForPage, roomForWidth } from './freeRoom';
import { viewOf } from './sight';

const NO_ROOM: Room = { left: 0, right: 0, top: 0, bottom: 0 };
/** What a region that fills the window leaves at each side, CSS pixels. */
const REGION_MARGIN = 8;
/** How far one can go from what is on a boundless page, page units. */
const ROAMING = 8000;

/** What has to be known of a desk to lay its page. */
export type PlacedDesk = Pick<PageDesk, 'page' | 'pageId' | 'extentOf' | 'field' | 'focus'> & {
  screen: Pick<PageDesk['screen'], 'isLive' | 'panesOf'>;
};

/** What lies over the window beside the page. */
export interface WhatIsAround {
  /** Where bars are now, CSS pixels. */
  bars(): readonly Rect[];
  /** How much larger than usual they are. */
  scale(): number;
  /** Whether the window is laid out for a hand-held screen. */
  compact(): boolean;
}

/** How the shown page lies in its window: fitted between the bars, moved by hand, or as somebody else sees it. */
export class Placing {
  /** Where the content lies that pointers and marks are on; of a live screen, its main part. */
  readonly view = new Store<View>({ scale: 1, x: 0, y: 0 });
  readonly fit = new Store<Fit>('page');
  /** Where the holders round the page stand. */
  readonly arrangement = new Store<Arrangement>('bars');
  /** Of the window. */
  size: Size = { width: 1, height: 1 };
  /** What the bars take of it. */
  room: Room = NO_ROOM;
  /** How the glass lies in the window; the content of a live screen may have moved on it. */
  glass: View = { scale: 1, x: 0, y: 0 };
  /** The region that fills the window, while one does: what the teacher has enlarged, or a student's own field. */
  region: Rect | undefined;
  toolSide: 'left' | 'right' | 'none' = 'left';
  /** Whether the page lies as it was fitted. */
  private isFitted = false;
  /** Whether the page was being seen live when it was last fitted: its size may be another then. */
  private fittedLive = false;
  private beside = false;
  /** Whether nothing is shown but the page, over which everything else lies. */
  private alone = false;

  constructor(
    private readonly desk: PlacedDesk,
    private readonly around: WhatIsAround,
  ) {}

  /** What the bars beside the page take of the window, CSS pixels. */
  get sides(): { left: number; right: number } {
    return { left: Math.max(4, this.room.left), right: Math.max(4, this.room.right) };
  }

  get isLive(): boolean {
    const { page, screen } = this.desk;
    return page !== undefined && screen.isLive(page.id);
  }

  /** The parts of a live screen that have moved on the glass, page units. */
  get panes(): readonly Pane[] {
    const { pageId, screen } = this.desk;
    return screen.panesOf(pageId.get() ?? '');
  }

  /** The part of the page plane that the window shows. */
  get visible(): Rect {
    return visibleRect(this.view.get(), this.size);
  }

  /** Whether the whole width of a page is in sight, so that it cannot be moved sideways. */
  fitsAcross(page: Page): boolean {
    return this.desk.extentOf(page).width * this.glass.scale <= this.size.width;
  }

  toPage(x: number, y: number): { x: number; y: number } {
    return toPage(this.view.get(), x, y);
  }

  pan(dx: number, dy: number): void {
    if (dx !== 0 || dy !== 0) this.isFitted = false;
    this.moveTo(panBy(this.glass, dx, dy, this.ground, this.size, this.room));
  }

  /** Brings a point of the page into the middle of the window. */
  centreOn(x: number, y: number): void {
    this.free();
    this.moveTo(centreOn(this.glass, x, y, this.ground, this.size));
  }

  zoom(factor: number, at = { x: this.size.width / 2, y: this.size.height / 2 }): void {
    this.free();
    this.moveTo(zoomAt(this.glass, factor, at, this.ground, this.size, this.room));
  }

  /**
   * Enlarges the page about one of its points until it is seen at `scale`, where it is smaller, and brings that point to
   * the window's left, until what is returned is called.
   */
  lookCloser(at: { x: number; y: number }, scale: number): () => void {
    const { scale: now, x, y } = this.view.get();
    if (now >= scale) return () => undefined;
    const before = { fit: this.fit.get(), glass: this.glass };
    this.zoom(scale / now, { x: x + at.x * now, y: y + at.y * now });
    const closer = this.view.get();
    this.pan(Math.min(0, MARGIN - (closer.x + at.x * closer.scale)), 0);
    return () => {
      if (before.fit === 'free') this.moveTo(before.glass);
      else this.setFit(before.fit);
    };
  }

  /** Lays the page so that what somebody else sees of it is in sight. */
  showSight(sight: Sight): void {
    this.free();
    this.moveTo(viewOf(sight, this.size, this.room, this.around.compact()));
  }

  setFit(fit: Fit): void {
    this.fit.set(fit);
    this.applyFit();
  }

  /** Says on which side the tools are, so that a fitted page leaves room for them; `beside`: of two pages. */
  setToolSide(side: 'left' | 'right' | 'none', beside: boolean): void {
    if (side === this.toolSide && beside === this.beside) return;
    this.toolSide = side;
    this.beside = beside;
    this.applyFit();
  }

  /** Says whether nothing is shown but the page, so that it may be as large as the window. */
  setAlone(alone: boolean): void {
    if (alone === this.alone) return;
    this.alone = alone;
    this.applyFit();
  }

  /** Makes room for the bars, unless the page has been moved by hand since it was fitted. */
  barsChanged(): void {
    if (this.isFitted) this.applyFit();
    else this.pan(0, 0);
  }

  /** A live screen has begun, ended, or moved its content. */
  screenMoved(): void {
    if (this.isLive !== this.fittedLive) this.applyFit();
    else if (this.isLive) this.moveTo(this.glass);
  }

  applyFit(): void {
    const { page } = this.desk;
    if (!page) return;
    const fit = this.fit.get();
    this.fittedLive = this.isLive;
    const extent = this.desk.extentOf(page);
    const letters = this.around.scale();
    const inBars = this.beside || this.around.compact();
    this.arrangement.set(inBars ? 'bars' : arrangementFor(extent, this.size, letters));
    this.room = this.roomFor(extent, fit, letters);
    this.isFitted = fit !== 'free';
    if (fit === 'region' && this.region) this.moveTo(fitPage(this.region, this.size, this.room));
    else if (fit === 'page') this.moveTo(fitPage(extent, this.size, this.room));
    else if (fit === 'width') this.moveTo(fitWidth(extent, this.size, this.room));
    else this.pan(0, 0);
  }

  /** Takes the region in that fills the window on the shown page. Returns whether it is another than before. */
  takeRegion(): boolean {
    const { field, focus } = this.desk;
    const region = focus?.kind === 'enlarged' ? focus : field;
    const { region: before } = this;
    this.region = region;
    const same = region === before || (region && before && isSameRect(region, before));
    if (!same) this.fit.set(region ? 'region' : 'page');
    return !same;
  }

  private free(): void {
    this.fit.set('free');
    this.isFitted = false;
  }

  /** What can be moved over: the page, and much room round one that is boundless. */
  private get ground(): Rect {
    const { page } = this.desk;
    if (!page) return { x: 0, y: 0, width: 1, height: 1 };
    const extent = this.desk.extentOf(page);
    return isBoundless(page) && !this.isLive ? growRect(extent, ROAMING) : extent;
  }

  /** What the bars leave for a page; before they are there, what they are likely to leave. */
  private roomFor(extent: Rect, fit: Fit, letters: number): Room {
    if (fit === 'region' && this.desk.focus?.kind === 'enlarged')
      return { left: REGION_MARGIN, right: REGION_MARGIN, top: REGION_MARGIN, bottom: REGION_MARGIN };
    const bars = this.around.bars();
    if (this.alone) return NO_ROOM;
    const compact = this.around.compact();
    if (bars.length === 0)
      return compact ? compactRoom(letters) : roomFor(this.arrangement.get(), this.toolSide, letters);
    const margin = compact ? COMPACT_MARGIN : MARGIN;
    return fit === 'width'
      ? roomForWidth(this.size, bars, margin)
      : roomForPage((fit === 'region' && this.region) || extent, this.size, bars, margin);
  }

  private moveTo(glass: View): void {
    this.glass = glass;
    const { x, y, scale } = mainPlace(this.panes);
    this.view.set({
      scale: glass.scale * scale,
      x: glass.x + x * glass.scale,
      y: glass.y + y * glass.scale,
    });
  }
}

function isSameRect(a: Rect, b: Rect): boolean {
  return a.x === b.x && a.y === b.y && a.width === b.width && a.height === b.height;
}
