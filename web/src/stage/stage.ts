import type { Rect } from '@doodla/core';
import { growRect } from '@doodla/core';
import type { Preview } from '../canvas/preview';
import type { PenPoint, RunningGesture } from '../desk/gesture';
import type { Glass } from '../desk/glass';
import type { PageDesk } from '../room/pageDesk';
import { interfaceScale, targetSize, typeSize } from '../ui/typeSize';
import { pageShows } from '../ui/moments';
import { windowRoom } from '../ui/windowRoom';
import { exposeStage } from './inspect';
import { KeyPointer } from './keyPointer';
import { fontArrived } from '../canvas/markPainter';
import { PageCanvas } from '../canvas/pageCanvas';
import type { SurfaceView } from '../canvas/surface';
import type { Fit } from '../canvas/view';
import { Bars } from './bars';
import { PenWork } from './penWork';
import { Placing } from './placing';
import { SharedSight } from './sharedSight';
import { StageInput } from './stageInput';
import { uncover } from './uncover';
import { Underlays } from './underlays';

const ZOOM_STEP = 1.25;

/** The shown page in its window: what it is drawn by, how it lies there, and what pointers do to it. */
export class Stage implements Glass {
  readonly keyPointer = new KeyPointer(this);
  private readonly canvas: PageCanvas;
  private readonly bars: Bars;
  private readonly placing: Placing;
  private readonly underlays: Underlays;
  private readonly work: PenWork;
  private readonly sight: SharedSight;
  private readonly input: StageInput;
  private readonly observer: ResizeObserver;
  private readonly stops: (() => void)[];

  constructor(
    readonly host: HTMLElement,
    private readonly desk: PageDesk,
  ) {
    this.canvas = new PageCanvas(host, desk.pictures);
    this.bars = new Bars(host, () => this.placing.barsChanged());
    this.placing = new Placing(desk, {
      bars: () => this.bars.rects(),
      scale: interfaceScale,
      compact: () => windowRoom.get().compact,
    });
    this.underlays = new Underlays(host, desk);
    this.work = new PenWork(desk, this.placing, this.underlays, this.canvas);
    this.sight = new SharedSight(
      desk,
      this.placing,
      () => this.work.isWriting || desk.textEdit.get() !== undefined,
    );
    this.input = new StageInput(host, this);
    this.observer = new ResizeObserver(() => this.resize());
    this.observer.observe(host);
    this.canvas.onFrame = () => this.tellWet();
    this.stops = [...this.watchDesk(), ...this.watchParts()];
    desk.glass.set(this);
    void document.fonts.load('16px Andika').then(() => this.canvas.invalidate('all'));
    this.resize();
    if (desk.room.seat === undefined) exposeStage(desk, this);
  }

  get view() {
    return this.placing.view;
  }

  get fit() {
    return this.placing.fit;
  }

  get arrangement() {
    return this.placing.arrangement;
  }

  get recording() {
    return this.underlays.recording;
  }

  get written() {
    return this.work.written;
  }

  get sides() {
    return this.placing.sides;
  }

  get visible(): Rect {
    return this.placing.visible;
  }

  get writing(): boolean {
    const { room, penCase, picking } = this.desk;
    const may = room.mayTake(penCase.get().tool);
    return (room.mode.get() === 'write' && may) || picking.get() !== undefined;
  }

  get finger(): 'write' | 'move' | 'nothing' {
    return this.desk.penCase.get().finger;
  }

  get halvesAt(): number | undefined {
    return this.desk.penCase.get().otherHand ? this.placing.size.width / 2 : undefined;
  }

  begin(at: PenPoint, pressure: boolean, eraser: boolean): RunningGesture | undefined {
    return this.work.begin(at, pressure, eraser);
  }

  uncover(at: { x: number; y: number }): boolean {
    return uncover(this.desk, at);
  }

  hover(at: { x: number; y: number } | undefined): void {
    const { penCase, pointers, pageId } = this.desk;
    const page = pageId.get();
    if (penCase.get().tool !== 'pointer' || !this.writing || page === undefined) return;
    if (at) pointers.point(page, at.x, at.y);
    else pointers.rest(page);
  }

  swipe(step: number): void {
    const { room, page } = this.desk;
    if (room.mayTurn && page && this.placing.fitsAcross(page)) this.desk.turnBy(step);
  }

  drawRecording(ctx: CanvasRenderingContext2D): void {
    this.recording.get()?.drawInto(ctx);
  }

  get recordingAt(): number | undefined {
    return this.recording.get()?.shownAt;
  }

  recordingSound(): MediaStreamTrack | undefined {
    return this.recording.get()?.sound();
  }

  /** Draws what is seen of the page within `rect` (page units) into a context that is in page units. */
  paintInto(ctx: CanvasRenderingContext2D, rect: Rect, surface: SurfaceView): void {
    this.drawRecording(ctx);
    this.canvas.paintInto(ctx, rect, surface);
  }

  showPreview(preview: Preview | undefined): void {
    this.work.showPreview(preview);
  }

  toPage(x: number, y: number): { x: number; y: number } {
    return this.placing.toPage(x, y);
  }

  toWindow({ x, y }: { x: number; y: number }): { x: number; y: number } {
    const { left, top } = this.host.getBoundingClientRect();
    const { scale, x: dx, y: dy } = this.view.get();
    return { x: left + x * scale + dx, y: top + y * scale + dy };
  }

  pan(dx: number, dy: number): void {
    if (dx !== 0 || dy !== 0) this.sight.goApart();
    this.placing.pan(dx, dy);
  }

  centreOn(x: number, y: number): void {
    this.placing.centreOn(x, y);
  }

  zoom(factor: number, at?: { x: number; y: number }): void {
    this.sight.goApart();
    this.placing.zoom(factor, at);
  }

  /** Shows a point of the page at `scale` or larger, until what is returned is called. */
  lookCloser(at: { x: number; y: number }, scale: number): () => void {
    return this.placing.lookCloser(at, scale);
  }

  zoomIn(): void {
    this.zoom(ZOOM_STEP);
  }

  zoomOut(): void {
    this.zoom(1 / ZOOM_STEP);
  }

  setFit(fit: Fit): void {
    this.placing.setFit(fit);
  }

  setToolSide(side: 'left' | 'right' | 'none', beside = false): void {
    this.placing.setToolSide(side, beside);
  }

  setAlone(alone: boolean): void {
    this.placing.setAlone(alone);
  }

  destroy(): void {
    for (const stop of this.stops) stop();
    if (this.desk.glass.get() === this) this.desk.glass.set(undefined);
    this.observer.disconnect();
    this.bars.stop();
    this.sight.stop();
    this.underlays.destroy();
    this.input.destroy();
    this.canvas.destroy();
  }

  private watchDesk(): (() => void)[] {
    const { desk, canvas } = this;
    const redrawAll = () => canvas.invalidate('all');
    const redrawWet = () => canvas.touchWet();
    return [
      desk.pageId.subscribe(() => this.turned()),
      desk.pages.subscribe(() => this.showPage()),
      desk.textEdit.subscribe(redrawWet),
      desk.draft.subscribe(redrawWet),
      desk.ink.changed.subscribe(redrawWet),
      desk.pointers.changed.subscribe(redrawWet),
      desk.screen.state.subscribe(() => this.placing.screenMoved()),
      desk.screen.frames.subscribe(() => this.screenDrawn()),
      desk.apart.subscribe(() => this.sight.follow()),
      desk.stale.subscribe((what) => this.redraw(what)),
      desk.surfaces.changed.subscribe((page) => this.surfaceChanged(page)),
      desk.pictures.arrived.subscribe(redrawAll),
      fontArrived.subscribe(redrawAll),
      typeSize.subscribe(() => this.showPage()),
      targetSize.subscribe(() => this.showPage()),
      ...(desk.classroom ? [desk.classroom.scene.subscribe(() => this.sceneChanged())] : []),
    ];
  }

  private watchParts(): (() => void)[] {
    const { placing, underlays, work } = this;
    const redrawWet = () => this.canvas.touchWet();
    return [
      placing.view.subscribe(() => this.moved()),
      work.changed.subscribe(redrawWet),
      work.finished.subscribe(() => this.sight.follow()),
      underlays.recordingChanged.subscribe(redrawWet),
      underlays.webShown.subscribe(() => this.tellShown(true)),
    ];
  }

  private resize(): void {
    const size = { width: Math.max(1, this.host.clientWidth), height: Math.max(1, this.host.clientHeight) };
    this.placing.size = size;
    this.canvas.resize(size, window.devicePixelRatio);
    this.showPage();
    this.sight.follow();
  }

  private turned(): void {
    this.work.endAll();
    const { isTeacher, apart } = this.desk;
    // What was enlarged on one page is no good on another.
    if (!isTeacher && this.fit.get() === 'free') this.fit.set('page');
    apart.set(false);
    this.showPage();
    this.sight.follow();
  }

  private showPage(): void {
    const { page, layers, surfaces } = this.desk;
    if (!page) return this.canvas.clear();
    this.placing.takeRegion();
    this.placing.applyFit();
    const surface = surfaces.of(page);
    this.tellShown(surface.shown && page.surface.kind !== 'web');
    this.underlays.show(page);
    this.canvas.show(
      page,
      surface,
      layers.map((layer) => layer.on(page.id)),
    );
    this.canvas.touchWet();
  }

  private tellShown(shown: boolean): void {
    this.host.dataset.shown = String(shown);
    if (shown) pageShows.come();
  }

  private moved(): void {
    const { view, panes, isLive } = this.placing;
    this.canvas.setPanes(panes);
    this.underlays.setView(view.get());
    this.canvas.setView(view.get(), isLive);
    this.sight.tell();
  }

  private sceneChanged(): void {
    this.canvas.touchWet();
    this.sight.follow();
    if (this.placing.takeRegion()) this.placing.applyFit();
  }

  private screenDrawn(): void {
    if (this.placing.isLive) this.canvas.invalidate('all');
  }

  private redraw(what: Rect[] | 'all'): void {
    const { page, layers } = this.desk;
    if (what === 'all' || this.placing.panes.length > 0) {
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
    this.tellShown(true);
    this.canvas.invalidate('all');
    const at = pages.findIndex(({ id }) => id === pageId);
    const neighbours = [pages[at + 1], pages[at - 1]].filter((neighbour) => neighbour !== undefined);
    this.desk.surfaces.prefetch(neighbours, this.view.get().scale * window.devicePixelRatio);
  }

  /** Tells the canvas what is wet: own and others' gestures, and what they hide. */
  private tellWet(): void {
    const { desk } = this;
    const { page, ink } = desk;
    const { previews } = this.work;
    const others = page ? ink.onPage(page.id, this.desk.shownSpace) : [];
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
