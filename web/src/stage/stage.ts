import type { InkStyle, Page, Pane, Rect } from '@doodla/core';
import { growRect, hitBySweep, isBoundless, mainPlace } from '@doodla/core';
import { Signal, Store } from '@doodla/core/client';
import type { Preview } from '../canvas/preview';
import type { Gesture, PenPoint, RunningGesture } from '../desk/gesture';
import type { ShownWords } from '../tools/toolWork';
import type { WORK } from '../tools/work';
import type { ToolId } from '../tools/tools';
import type { Glass } from '../desk/glass';
import type { PageDesk } from '../room/pageDesk';
import { interfaceScale, targetSize, typeSize } from '../ui/typeSize';
import { exposeStage } from './inspect';
import { KeyPointer } from './keyPointer';
import { fontArrived } from '../canvas/markPainter';
import { PageCanvas } from '../canvas/pageCanvas';
import { Bars } from './bars';
import { roomForPage, roomForWidth } from './freeRoom';
import { holdOn } from './paneHold';
import { viewOf } from './sight';
import type { SightTeller } from './sightTeller';
import { StageInput } from './stageInput';
import type { Arrangement, Fit, Room, Size, View } from '../canvas/view';
import type { MediaFrame } from '../media/mediaFrame';
import type { SurfaceView } from '../canvas/surface';
import type { WebFrame } from './webFrame';
import {
  arrangementFor,
  centreOn,
  fitPage,
  fitWidth,
  panBy,
  roomFor,
  toPage,
  visibleRect,
  zoomAt,
} from '../canvas/view';

const ZOOM_STEP = 1.25;
const NO_ROOM: Room = { left: 0, right: 0, top: 0, bottom: 0 };
/** How far one can go from what is on a boundless page, page units. */
const ROAMING = 8000;

/** The shown page in its window: draws it, moves it, and turns pointers into gestures on it. */
export class Stage implements Glass {
  readonly view = new Store<View>({ scale: 1, x: 0, y: 0 });
  readonly fit = new Store<Fit>('page');
  /** Where the holders round the page stand. */
  readonly arrangement = new Store<Arrangement>('bars');

  readonly keyPointer = new KeyPointer(this);

  private readonly canvas: PageCanvas;
  /** Web pages lie under the canvases; made when the first one is shown. */
  private web: WebFrame | undefined;
  /** Recordings too. */
  private media: MediaFrame | undefined;
  private readonly input: StageInput;
  private readonly observer: ResizeObserver;
  private readonly bars: Bars;
  private room: Room | undefined;
  /** Whether the page lies as it was fitted. */
  private isFitted = false;
  private readonly stops: (() => void)[];
  /** Running gestures, with what ends them. */
  private readonly gestures = new Map<Gesture, () => void>();
  /** How the glass lies in the window; the content of a live screen may have moved on it. */
  private glass: View = { scale: 1, x: 0, y: 0 };
  /** What the tools do; it comes a moment after the page. */
  private work: typeof WORK | undefined;
  private outside: Preview | undefined;
  private size: Size = { width: 1, height: 1 };
  /** Whether the page was being seen live when it was last fitted: its size may be another then. */
  private fittedLive = false;
  private toolSide: 'left' | 'right' | 'none' = 'left';
  private beside = false;
  /** What plays the recording on a page, once one was shown. */
  readonly recording = new Store<MediaFrame | undefined>(undefined);
  /** The region that fills the window, while one does. */
  private region: Rect | undefined;
  /** Comes a moment later, for teachers only. */
  private sightTeller: SightTeller | undefined;
  /** Whether the page lies as the teacher's does. */
  private followed = false;
  readonly written = new Signal<PenPoint>();

  constructor(
    readonly host: HTMLElement,
    private readonly desk: PageDesk,
  ) {
    this.canvas = new PageCanvas(host, desk.pictures);
    this.input = new StageInput(host, this);
    this.observer = new ResizeObserver(() => this.resize());
    this.observer.observe(host);
    this.bars = new Bars(host, () => this.barsChanged());
    this.stops = [
      desk.pageId.subscribe(() => this.turned()),
      desk.pages.subscribe(() => this.showPage()),
      desk.textEdit.subscribe(() => this.canvas.touchWet()),
      desk.screen.state.subscribe(() => this.screenMoved()),
      desk.draft.subscribe(() => this.canvas.touchWet()),
      desk.apart.subscribe(() => this.followSight()),
      typeSize.subscribe(() => this.showPage()),
      targetSize.subscribe(() => this.showPage()),
      ...(desk.classroom ? [desk.classroom.scene.subscribe(() => this.sceneChanged())] : []),
      fontArrived.subscribe(() => this.canvas.invalidate('all')),
    ];
    this.canvas.onFrame = () => this.tellWet();
    desk.glass.set(this);
    this.stops.push(
      desk.stale.subscribe((what) => this.redraw(what)),
      desk.surfaces.changed.subscribe((page) => this.surfaceChanged(page)),
      desk.pictures.arrived.subscribe(() => this.canvas.invalidate('all')),
      desk.screen.frames.subscribe(() => this.screenDrawn()),
    );
    this.stops.push(desk.ink.changed.subscribe(() => this.canvas.touchWet()));
    this.stops.push(desk.pointers.changed.subscribe(() => this.canvas.touchWet()));
    void document.fonts.load('16px Andika').then(() => this.canvas.invalidate('all'));
    this.resize();
    import('../tools/work').then(
      (tools) => (this.work = tools.WORK),
      () => desk.tellProblem('The tools could not be fetched. Please load this page again.'),
    );
    exposeStage(desk, this);
    // Without it students look where they like, as they may anyway.
    this.lead().catch(() => undefined);
  }

  get writing(): boolean {
    const { room, penCase, picking } = this.desk;
    const may = room.mayTake(penCase.get().tool);
    return (room.mode.get() === 'write' && may) || picking.get() !== undefined;
  }

  /** What the bars beside the page take of the window, CSS pixels. */
  get sides(): { left: number; right: number } {
    const { left, right } = this.room ?? NO_ROOM;
    return { left: Math.max(4, left), right: Math.max(4, right) };
  }

  /** What a finger does once a pen has been used. */
  get finger(): 'write' | 'move' | 'nothing' {
    return this.desk.penCase.get().finger;
  }

  /** Where the half of one hand ends, while the other has a pen of its own; CSS pixels. */
  get halvesAt(): number | undefined {
    return this.desk.penCase.get().otherHand ? this.size.width / 2 : undefined;
  }

  /** Starts what a tool does at a point of the window; `eraser` is the eraser end of a pen. */
  begin(at: PenPoint, pressure: boolean, eraser: boolean): RunningGesture | undefined {
    const picking = this.desk.picking.get();
    if (picking) {
      this.desk.picking.set(undefined);
      picking(this.colourAt(at));
      return undefined;
    }
    this.desk.textEdit.set(undefined);
    if (this.uncover(at)) return undefined;
    this.media?.holdForWriting();
    let last = at;
    const hold = holdOn(this.panes, at);
    const within = <T>(run: () => T) => this.desk.onPane(hold.pane, run);
    const tool = eraser ? 'eraser' : this.desk.penCase.get().tool;
    const gesture = within(() => this.toolGesture(tool, { ...at, ...hold.toOwn(at) }, pressure));
    if (!gesture) return undefined;
    const finish = (how: 'end' | 'cancel') => () => {
      if (!this.gestures.delete(gesture)) return;
      within(() => gesture[how]());
      this.canvas.touchWet();
      this.followSight();
      if (how === 'end') this.written.tell(last);
    };
    this.gestures.set(gesture, finish('end'));
    this.canvas.touchWet();
    const move = (points: readonly PenPoint[]) => {
      if (!this.gestures.has(gesture)) return;
      last = points.at(-1) ?? last;
      within(() => gesture.move(points.map((point) => ({ ...point, ...hold.toOwn(point) }))));
      this.canvas.touchWet();
    };
    return { move, end: finish('end'), cancel: finish('cancel') };
  }

  /** Takes away a patch that covers a point, in class. Returns whether there was one. */
  uncover(at: { x: number; y: number }): boolean {
    const { classroom, isTeacher, penCase, page, layers } = this.desk;
    if (!classroom || !isTeacher || !page || penCase.get().tool === 'select') return false;
    const { uncovered } = classroom.scene.get();
    const patch = layers
      .flatMap((layer) => layer.on(page.id).within({ x: at.x, y: at.y, width: 0, height: 0 }))
      .findLast(
        (mark) =>
          mark.kind === 'patch' &&
          !uncovered.includes(mark.id) &&
          hitBySweep(mark, at.x, at.y, at.x, at.y, 1),
      );
    if (!patch || classroom.state.get()?.ended) return false;
    classroom.setScene({ uncovered: [...uncovered, patch.id] });
    return true;
  }

  /** What a pointer does that is over the page without being down. */
  hover(at: { x: number; y: number } | undefined): void {
    const { penCase, pointers, pageId } = this.desk;
    const page = pageId.get();
    if (penCase.get().tool !== 'pointer' || !this.writing || page === undefined) return;
    if (at) pointers.point(page, at.x, at.y);
    else pointers.rest(page);
  }

  /** Turns the page by a swipe, where the page fits and so cannot be moved instead. */
  swipe(step: number): void {
    const { room, page } = this.desk;
    if (room.mayTurn && page && this.desk.extentOf(page).width * this.glass.scale <= this.size.width)
      this.desk.turnBy(step);
  }

  /** Draws the frame of a recording that is seen now into a context that is in page units. */
  drawRecording(ctx: CanvasRenderingContext2D): void {
    this.media?.drawInto(ctx);
  }

  /** Draws what is seen of the page within `rect` (page units) into a context that is in page units. */
  paintInto(ctx: CanvasRenderingContext2D, rect: Rect, surface: SurfaceView): void {
    this.media?.drawInto(ctx);
    this.canvas.paintInto(ctx, rect, surface);
  }

  /** Shows a preview that comes from elsewhere than a tool, such as the handles of a selection. */
  showPreview(preview: Preview | undefined): void {
    this.outside = preview;
    this.canvas.touchWet();
  }

  toPage(x: number, y: number): { x: number; y: number } {
    return toPage(this.view.get(), x, y);
  }

  /** The part of the page plane that the window shows. */
  get visible(): Rect {
    return visibleRect(this.view.get(), this.size);
  }

  pan(dx: number, dy: number): void {
    if (dx !== 0 || dy !== 0) {
      this.isFitted = false;
      this.goApart();
    }
    this.moveTo(panBy(this.glass, dx, dy, this.ground, this.size, this.room));
  }

  /** Brings a point of the page into the middle of the window. */
  centreOn(x: number, y: number): void {
    this.fit.set('free');
    this.isFitted = false;
    this.moveTo(centreOn(this.glass, x, y, this.ground, this.size));
  }

  zoom(factor: number, at = { x: this.size.width / 2, y: this.size.height / 2 }): void {
    this.fit.set('free');
    this.isFitted = false;
    this.goApart();
    this.moveTo(zoomAt(this.glass, factor, at, this.ground, this.size, this.room));
  }

  zoomIn(): void {
    this.zoom(ZOOM_STEP);
  }

  zoomOut(): void {
    this.zoom(1 / ZOOM_STEP);
  }

  setFit(fit: Fit): void {
    this.fit.set(fit);
    this.applyFit();
  }

  /** Says on which side the tools are, so that a fitted page leaves room for them; `beside`: of two pages. */
  setToolSide(side: 'left' | 'right' | 'none', beside = false): void {
    if (side === this.toolSide && beside === this.beside) return;
    this.toolSide = side;
    this.beside = beside;
    this.applyFit();
  }

  destroy(): void {
    for (const stop of this.stops) stop();
    if (this.desk.glass.get() === this) this.desk.glass.set(undefined);
    this.observer.disconnect();
    this.bars.stop();
    this.sightTeller?.stop();
    this.web?.destroy();
    this.media?.destroy();
    this.input.destroy();
    this.canvas.destroy();
  }

  private toolGesture(tool: ToolId, at: PenPoint, pressure: boolean): Gesture | undefined {
    const { desk } = this;
    if (tool !== 'select') desk.selection.clear();
    if (!desk.room.mayTake(tool)) return undefined;
    return this.work?.[tool].begin(at, {
      desk,
      pressure,
      scale: this.view.get().scale,
      words: this.wordsAt(at),
      penAt: (point, inHand) => this.penAt(point, inHand),
      onChange: () => this.canvas.touchWet(),
    });
  }

  /** The words of the shown page that may be marked from a point on; beside what is printed ink is drawn. */
  private wordsAt({ x, y }: PenPoint): ShownWords | undefined {
    const { page, surfaces } = this.desk;
    if (page?.surface.kind === 'web') return this.web?.text;
    const words = page && surfaces.wordsOf(page);
    return words?.hasAt(x, y) ? words : undefined;
  }

  /** The pen of the hand that writes at a point: the half away from the tools may have its own. */
  private penAt(at: PenPoint, inHand: InkStyle): InkStyle {
    const { otherHand } = this.desk.penCase.get();
    if (!otherHand) return inHand;
    const { scale, x } = this.view.get();
    const left = at.x * scale + x < this.size.width / 2;
    return left === (this.toolSide === 'left') ? inHand : otherHand;
  }

  /** What can be moved over: the page, and much room round one that is boundless. */
  private get ground(): Rect {
    const { page } = this.desk;
    if (!page) return { x: 0, y: 0, width: 1, height: 1 };
    const extent = this.desk.extentOf(page);
    return isBoundless(page) && !this.isLive ? growRect(extent, ROAMING) : extent;
  }

  private resize(): void {
    this.size = { width: Math.max(1, this.host.clientWidth), height: Math.max(1, this.host.clientHeight) };
    this.canvas.resize(this.size, window.devicePixelRatio);
    this.showPage();
    this.followSight();
  }

  /** What was being drawn belongs to the page that it was begun on, and ends with it. */
  private turned(): void {
    for (const end of [...this.gestures.values()]) end();
    const { isTeacher, apart } = this.desk;
    // What was enlarged on one page is no good on another.
    if (!isTeacher && this.fit.get() === 'free') this.fit.set('page');
    apart.set(false);
    this.showPage();
    this.followSight();
  }

  private showPage(): void {
    const { page, layers, surfaces } = this.desk;
    if (!page) return this.canvas.clear();
    this.takeRegion();
    this.applyFit();
    const surface = surfaces.of(page);
    this.host.dataset.shown = String(surface.shown && page.surface.kind !== 'web');
    void this.showWeb(page);
    void this.showMedia(page);
    this.prefetchWeb(page);
    this.canvas.show(
      page,
      surface,
      layers.map((layer) => layer.on(page.id)),
    );
    this.canvas.touchWet();
  }

  /** Makes room for the bars, unless the page has been moved by hand since it was fitted. */
  private barsChanged(): void {
    if (this.isFitted) return this.applyFit();
    this.pan(0, 0);
  }

  private applyFit(): void {
    const { page } = this.desk;
    if (!page) return;
    const fit = this.fit.get();
    this.fittedLive = this.isLive;
    const extent = this.desk.extentOf(page);
    const letters = interfaceScale();
    this.arrangement.set(this.beside ? 'bars' : arrangementFor(extent, this.size, letters));
    this.room = this.roomFor(extent, fit, letters);
    this.isFitted = fit !== 'free';
    if (fit === 'region' && this.region) this.moveTo(fitPage(this.region, this.size, this.room));
    else if (fit === 'page') this.moveTo(fitPage(extent, this.size, this.room));
    else if (fit === 'width') this.moveTo(fitWidth(extent, this.size, this.room));
    else this.pan(0, 0);
  }

  /** What the bars leave for a page; before they are there, what they are likely to leave. */
  private roomFor(extent: Rect, fit: Fit, letters: number): Room {
    if (fit === 'region') return { left: 8, right: 8, top: 8, bottom: 8 };
    const bars = this.bars.rects();
    if (bars.length === 0)
      return roomFor(this.arrangement.get(), this.toolSide, this.size, letters, this.beside);
    return fit === 'width' ? roomForWidth(this.size, bars) : roomForPage(extent, this.size, bars);
  }

  private moveTo(glass: View): void {
    this.glass = glass;
    const { x, y, scale } = mainPlace(this.panes);
    const view = {
      scale: glass.scale * scale,
      x: glass.x + x * glass.scale,
      y: glass.y + y * glass.scale,
    };
    this.canvas.setPanes(this.panes);
    this.view.set(view);
    this.web?.setView(view);
    this.media?.setView(view);
    this.canvas.setView(view, this.isLive);
    this.tellSight();
  }

  /** Tells the class what is seen here, where this is its teacher's own screen. */
  private tellSight(): void {
    const { page, classroom } = this.desk;
    if (!page || !this.sightTeller || classroom?.state.get()?.page !== page.id) return;
    const isWhole = this.isLive || this.region !== undefined;
    const extent = isWhole ? undefined : this.desk.extentOf(page);
    this.sightTeller.tell(page.id, extent, this.glass, this.size, this.room ?? NO_ROOM);
  }

  /** A teacher's own screen leads the class's. */
  private async lead(): Promise<void> {
    const { isTeacher, room, isBeside, classroom } = this.desk;
    if (!isTeacher || room.device || isBeside || !classroom) return;
    const { SightTeller: Teller } = await import('./sightTeller');
    this.sightTeller = new Teller(this.desk);
  }

  /** Keeps what the teacher sees in sight, until this person moves the page. */
  private followSight(): void {
    const { desk } = this;
    const { pageId, isTeacher, apart, classroom } = desk;
    // Nothing moves under a hand that writes.
    if (isTeacher || this.isLive || this.region || apart.get() || this.gestures.size > 0) return;
    // Who looks back after the class is led by nobody.
    const sight = classroom?.state.get()?.ended ? null : classroom?.scene.get().sight;
    if (sight && sight.page === pageId.get()) {
      this.fit.set('free');
      this.isFitted = false;
      this.followed = true;
      this.moveTo(viewOf(sight, this.size, this.room ?? NO_ROOM));
    } else if (this.followed) {
      this.followed = false;
      this.setFit('page');
    }
  }

  /** A student who moves the page sees it their own way from then on. */
  private goApart(): void {
    const { pageId, isTeacher, apart, classroom } = this.desk;
    if (!isTeacher && classroom?.scene.get().sight?.page === pageId.get()) apart.set(true);
  }

  private get isLive(): boolean {
    const { page, screen } = this.desk;
    return page !== undefined && screen.isLive(page.id);
  }

  /** The parts of a live screen that have moved on the glass, page units. */
  private get panes(): readonly Pane[] {
    const { pageId, screen } = this.desk;
    return screen.panesOf(pageId.get() ?? '');
  }

  private async showWeb(page: Page): Promise<void> {
    if (this.web || page.surface.kind !== 'web') return this.web?.show(page);
    const web = await this.webFrame();
    if (this.desk.page) web.show(this.desk.page);
  }

  private async webFrame(): Promise<WebFrame> {
    const { WebFrame: Frame } = await import('./webFrame');
    this.web ??= new Frame(this.host, this.desk, () => this.webShown());
    this.web.setView(this.view.get());
    return this.web;
  }

  /** Lays out a web page that may be turned to next, and fetches another. */
  private prefetchWeb(page: Page): void {
    const pages = this.desk.pages.get();
    const at = pages.findIndex(({ id }) => id === page.id);
    const [next, ...others] = [pages[at + 1], pages[at - 1]].filter((near) => near?.surface.kind === 'web');
    if (next) void this.webFrame().then((web) => web.prepare(next));
    for (const { surface } of others as Page[])
      // Fetched ahead; when it is turned to, a failure is told there.
      if (surface.kind === 'web') void this.desk.room.webPages.html(surface.material).catch(() => undefined);
  }

  private async showMedia(page: Page): Promise<void> {
    if (page.surface.kind !== 'media') return this.media?.show(page);
    const { MediaFrame: Frame } = await import('../media/mediaFrame');
    if (!this.media) this.recording.set((this.media = this.newRecording(Frame)));
    this.media.setView(this.view.get());
    if (this.desk.page) this.media.show(this.desk.page);
  }

  private newRecording(Frame: typeof MediaFrame): MediaFrame {
    return new Frame(this.host, this.desk, () => this.canvas.touchWet());
  }

  private sceneChanged(): void {
    this.canvas.touchWet();
    this.followSight();
    if (this.takeRegion()) this.applyFit();
  }

  /** Takes the region in that fills the window on the shown page. Returns whether it is another than before. */
  private takeRegion(): boolean {
    const { focus } = this.desk;
    const region = focus?.kind === 'enlarged' ? focus : undefined;
    const { region: before } = this;
    this.region = region;
    const same =
      region === before ||
      (region &&
        before &&
        region.x === before.x &&
        region.y === before.y &&
        region.width === before.width &&
        region.height === before.height);
    if (!same) this.fit.set(region ? 'region' : 'page');
    return !same;
  }

  private webShown(): void {
    this.host.dataset.shown = 'true';
  }

  private screenMoved(): void {
    if (this.isLive !== this.fittedLive) this.applyFit();
    else if (this.isLive) this.moveTo(this.glass);
  }

  private screenDrawn(): void {
    if (this.isLive) this.canvas.invalidate('all');
  }

  private redraw(what: Rect[] | 'all'): void {
    const { page, layers } = this.desk;
    if (what === 'all' || this.panes.length > 0) {
      if (page && what === 'all') this.showPage();
      this.canvas.invalidate('all');
      return;
    }
    if (page && layers.length > 0) for (const rect of what) this.canvas.invalidate(growRect(rect, 1));
    this.canvas.touchWet();
  }

  private surfaceChanged(pageId: string): void {
    const { page } = this.desk;
    const pages = this.desk.pages.get();
    if (page?.id !== pageId) return;
    this.host.dataset.shown = 'true';
    this.canvas.invalidate('all');
    const at = pages.findIndex(({ id }) => id === pageId);
    const neighbours = [pages[at + 1], pages[at - 1]].filter((neighbour) => neighbour !== undefined);
    this.desk.surfaces.prefetch(neighbours, this.view.get().scale * window.devicePixelRatio);
  }

  /** The colour that is seen at a point of the page, as hex. */
  private colourAt({ x, y }: { x: number; y: number }): string {
    const { scale, x: left, y: top } = this.view.get();
    return this.canvas.colourAt(x * scale + left, y * scale + top);
  }

  /** Tells the canvas what is wet: own and others' gestures, and what they hide. */
  private tellWet(): void {
    const { desk } = this;
    const { page, ink } = desk;
    const previews = [...this.gestures.keys()].map((gesture) => gesture.preview);
    if (this.outside) previews.push(this.outside);
    const others = page ? ink.onPage(page.id, this.desk.space) : [];
    this.canvas.setWet(
      [...others, ...previews.flatMap((preview) => preview.ink ?? [])],
      previews.flatMap((preview) => preview.marks ?? []),
      previews.find((preview) => preview.area)?.area ?? desk.draft.get() ?? [],
    );
    const edited = desk.textEdit.get()?.mark?.id;
    const hidden = previews.flatMap((preview) => [...(preview.hidden ?? [])]);
    hidden.push(...(desk.classroom?.scene.get().uncovered ?? []));
    this.canvas.setHidden(new Set(edited === undefined ? hidden : [...hidden, edited]));
    this.tellDots();
  }

  /** Tells the canvas who points, and goes on while something fades. */
  private tellDots(): void {
    const { pageId, pointers, ink } = this.desk;
    const page = pageId.get();
    const pointing = page === undefined ? [] : pointers.onPage(page);
    this.canvas.setDots(
      pointing.map(([author, { trail }]) => ({ colour: this.desk.room.colourOf(author), trail })),
    );
    if (pointing.length > 0 || (page !== undefined && ink.isFading(page)))
      requestAnimationFrame(() => this.canvas.touchWet());
  }
}
