import type { Pane, Placement, ScreenPart, ViewPicture } from '@doodla/core';
import { mainPlace, SCREEN, scaledPanes } from '@doodla/core';
import type { ViewState } from '@doodla/core/follow';
import { ViewPages } from '@doodla/core/follow';
import type { Remote } from 'comlink';
import { releaseProxy, transfer, wrap } from 'comlink';
import { Store } from '@doodla/core/client';
import type { Desk } from '../desk/desk';
import type { EncodedPart, ScreenWorker } from './screen.worker';
import { sendSound } from './soundSender';
import { forgetLast, keepLast } from './lastPicture';
import type { ScreenSource } from './sources';
import type { PictureStore } from '../desk/pictureSender';
import { t } from '../words';

/** What showing a screen needs of the class it is shown to. */
export type ShowingDesk = Pick<
  Desk,
  'connection' | 'layers' | 'marksChanged' | 'tellProblem' | 'pages' | 'screen' | 'sitting'
> &
  PictureStore & { pictures: Pick<Desk['pictures'], 'load'> };

const FRAME_MS = 100;
const MOST_ZOOM = 4;
/** Scrolled further than this part of the screen, what is written on is pictured anew. */
const NEXT_PICTURE = 0.3;
/** Most pages of which views are looked for again, the last ones. */
const MOST_RECALLED = 60;
/** Difference of width to height up to which a picture can be of the same screen. */
const SAME_SHAPE = 0.02;
const LAST_EVERY_MS = 4000;

export interface PresenterState {
  kind: ScreenSource['kind'];
  follow: boolean;
  frozen: boolean;
  /** Quarter turns clockwise, and whether it is mirrored left to right; for cameras. */
  quarters: number;
  mirrored: boolean;
  /** How much of it is shown: 1 all, 2 the middle half each way. */
  zoom: number;
  /** Whether a picture is kept as soon as writing starts. */
  keeps: boolean;
}

/** A view's page, and the pictures of it that are stored. */
interface KnownView {
  page: string;
  pictures: ViewPicture[];
}

/** Shows a screen to the class: takes frames, follows them, sends them, and gives each view its page. */
export class Presenter {
  readonly state: Store<PresenterState>;
  private readonly thread = new Worker(new URL('./screen.worker.ts', import.meta.url), { type: 'module' });
  private readonly worker: Remote<ScreenWorker> = wrap<ScreenWorker>(this.thread);
  private readonly views = new ViewPages<KnownView>();
  private readonly stops: (() => void)[];
  private timer: ReturnType<typeof setTimeout> | undefined;
  private whole = true;
  /** Whether somebody cannot decode video. */
  private plain = false;
  private closed = false;
  /** Whether the class has been told. */
  hasStarted = false;
  private keeping: Promise<void> = Promise.resolve();
  private lastKeptAt = 0;

  constructor(
    private readonly desk: ShowingDesk,
    readonly source: ScreenSource,
    private readonly onStopped: () => void,
    /** Where the content of the picture is that is seen now, where that is known: a page in its tab says it. */
    private readonly told?: (width: number) => ViewState | undefined,
  ) {
    this.state = new Store<PresenterState>({
      kind: source.kind,
      follow: true,
      frozen: false,
      quarters: 0,
      mirrored: false,
      zoom: 1,
      keeps: true,
    });
    source.onEnded = () => void this.stop();
    this.stops = [
      desk.connection.on(SCREEN.whole, () => (this.whole = true)),
      desk.connection.on(SCREEN.plain, () => (this.plain = true)),
      desk.connection.onOnline(() => void this.announce()),
      desk.marksChanged.subscribe(() => this.keepWhereWritten()),
    ];
  }

  /** Begins. Throws LiveError where showing is not allowed. */
  async start(): Promise<void> {
    await this.announce(true);
    this.hasStarted = true;
    await this.recallViews();
    const { sound } = this.source;
    const { sitting, connection } = this.desk;
    if (sound) this.stops.push(sendSound(sound, sitting!, connection));
    void this.nextFrame();
  }

  /** Stops showing, by oneself or because the source has ended. */
  async stop(): Promise<void> {
    if (this.closed) return;
    await this.keepHere();
    void forgetLast();
    const { sitting } = this.desk;
    // The server stops what is shown by itself when the connection is gone.
    await this.desk.connection.request(SCREEN.stop, { sitting }).catch(() => undefined);
    this.close();
  }

  /** Lets go of everything, also where somebody else has stopped it. */
  close(): void {
    if (this.closed) return;
    this.closed = true;
    clearTimeout(this.timer);
    for (const stop of this.stops) stop();
    this.source.stop();
    this.worker[releaseProxy]();
    this.thread.terminate();
    this.desk.screen.set(undefined);
    this.onStopped();
  }

  /** Size of what is shown, turned as it is. */
  private size(): { width: number; height: number } {
    const { width, height } = this.source.size();
    return this.state.get().quarters % 2 === 0 ? { width, height } : { width: height, height: width };
  }

  turn(): void {
    this.state.patch({ quarters: (this.state.get().quarters + 1) % 4 });
  }

  /** Shows the middle larger, or more of it again. */
  zoomBy(step: number): void {
    const zoom = Math.min(MOST_ZOOM, Math.max(1, this.state.get().zoom + step));
    this.state.patch({ zoom });
  }

  setKeeps(keeps: boolean): void {
    this.state.patch({ keeps });
  }

  mirror(): void {
    this.state.patch({ mirrored: !this.state.get().mirrored });
  }

  setFollow(follow: boolean): void {
    this.state.patch({ follow });
  }

  /** Holds the shown picture still, or lets it go on as a view of its own, so that what was written stays with it. */
  async setFrozen(frozen: boolean): Promise<void> {
    this.state.patch({ frozen });
    if (frozen) return this.keepHere();
    await this.worker.forget();
    this.views.forget();
  }

  private async announce(first = false): Promise<void> {
    if (!first && !this.views.current) return;
    const { sitting, connection } = this.desk;
    const { page } = await connection.request<{ page: string }>(SCREEN.start, {
      sitting,
      ...this.size(),
      ...(this.views.current && { page: this.views.current.page }),
    });
    this.views.current ??= { page, pictures: [] };
    this.whole = true;
  }

  /** Makes the views of this class that were kept known again, so that their marks are found when they are seen. */
  private async recallViews(): Promise<void> {
    const { width, height } = this.size();
    if (width === 0 || height === 0) return;
    const { pictures, pages } = this.desk;
    for (const page of pages.get().slice(-MOST_RECALLED)) {
      if (page.surface.kind !== 'view') continue;
      let view: number | undefined;
      for (const { material, x, y, scale = 1 } of page.surface.pictures) {
        const picture = await pictures.load(material);
        if (!picture || Math.abs(picture.width / picture.height - width / height) > SAME_SHAPE) continue;
        const bitmap = await createImageBitmap(picture, { resizeWidth: width, resizeHeight: height });
        const k = width / page.width;
        const place = { scale: 1 / scale, x: (-x / scale) * k + 0, y: (-y / scale) * k + 0 };
        view = await this.worker.seed(transfer(bitmap, [bitmap]), place, view);
      }
      if (view !== undefined)
        this.views.recall(view, { page: page.id, pictures: [...page.surface.pictures] });
    }
  }

  /** Keeps what is seen on this device now and then, in case the page is loaded anew. */
  private keepLastPicture(at: number): void {
    const { sitting, screen } = this.desk;
    const live = screen.state.get();
    if (!live || at - this.lastKeptAt < LAST_EVERY_MS) return;
    this.lastKeptAt = at;
    const place = placeOfPicture(live.panes);
    void pictureOf(screen.canvas).then(
      (blob) => keepLast({ sitting: sitting!, page: live.page, place, blob }),
      // A picture that cannot be made now is made the next time.
      () => undefined,
    );
  }

  private async nextFrame(): Promise<void> {
    const started = performance.now();
    try {
      if (!this.state.get().frozen) await this.takeFrame();
    } catch (error) {
      if (!this.closed) this.desk.tellProblem((error as Error).message);
    }
    if (this.closed) return;
    const rest = Math.max(0, FRAME_MS - (performance.now() - started));
    this.timer = setTimeout(() => void this.nextFrame(), rest);
  }

  private async takeFrame(): Promise<void> {
    const { width, height } = this.size();
    if (width === 0 || height === 0) return;
    const told = this.told?.(width);
    const bitmap = await this.picture();
    const at = Date.now();
    const send = this.desk.connection.hasRoom;
    const whole = this.whole && send;
    if (send) this.whole = false;
    const { follow } = this.state.get();
    const taken = await this.worker.take(transfer(bitmap, [bitmap]), {
      at,
      follow,
      told,
      whole,
      send,
      plain: this.plain,
    });
    if (this.closed) return;
    this.desk.screen.draw(taken.bitmap, { width, height });
    taken.bitmap.close();
    if (taken.state.certain && !this.views.is(taken.state.view)) await this.arriveAt(taken.state, width);
    this.show(taken.state, width);
    this.keepLastPicture(at);
    for (const part of taken.parts) this.send(part, taken.state, { width, height, at });
  }

  /** The source's picture now, turned and mirrored. */
  private picture(): Promise<ImageBitmap> {
    const { quarters, mirrored, zoom } = this.state.get();
    if (quarters === 0 && !mirrored && zoom === 1) return createImageBitmap(this.source.picture);
    const { width, height } = this.size();
    const own = this.source.size();
    const turned = new OffscreenCanvas(width, height);
    const ctx = turned.getContext('2d')!;
    ctx.translate(width / 2, height / 2);
    ctx.scale(mirrored ? -zoom : zoom, zoom);
    ctx.rotate((quarters * Math.PI) / 2);
    ctx.drawImage(this.source.picture, -own.width / 2, -own.height / 2);
    return Promise.resolve(turned.transferToImageBitmap());
  }

  /** Pixels of the source to page units. */
  private unitsPerPixel(width: number): number {
    const page = this.desk.pages.get().find(({ id }) => id === this.views.current?.page);
    return (page?.width ?? width) / width;
  }

  private show({ panes, certain }: ViewState, width: number): void {
    const { page } = this.views.current!;
    this.desk.screen.set({ page, certain, panes: scaledPanes(panes, this.unitsPerPixel(width)) });
  }

  private send(
    { bytes, ...part }: EncodedPart,
    { panes, certain }: ViewState,
    frame: { width: number; height: number; at: number },
  ): void {
    const head: ScreenPart = {
      ...part,
      ...frame,
      sitting: this.desk.sitting!,
      page: this.views.current!.page,
      panes: scaledPanes(panes, this.unitsPerPixel(frame.width)),
      certain,
    };
    this.desk.connection.send(SCREEN.part, head, bytes);
  }

  /** Gives a view its page, and shows it. */
  private async arriveAt({ view, panes }: ViewState, width: number): Promise<void> {
    const { sitting, connection } = this.desk;
    await this.keeping;
    const arrival = this.views.arrive(view, this.isWrittenOn());
    if (arrival.kind === 'new') {
      const { page } = await connection.request<{ page: string }>(SCREEN.view, { sitting, ...this.size() });
      this.views.took({ page, pictures: [] });
    } else if (arrival.kind !== 'same') {
      const { page } = arrival.shown;
      const seen = arrival.kind === 'known' ? scaledPanes(panes, this.unitsPerPixel(width)) : [];
      await connection.request(SCREEN.show, { sitting, page, panes: seen });
    }
    this.whole = true;
  }

  private isWrittenOn(): boolean {
    const page = this.views.current?.page;
    if (page === undefined) return false;
    return (
      this.views.current!.pictures.length > 0 || this.desk.layers.some((layer) => layer.on(page).size > 0)
    );
  }

  /** Pictures the screen as soon as it is written on where there is no picture of it yet. */
  private keepWhereWritten(): void {
    const live = this.desk.screen.state.get();
    if (!this.state.get().keeps) return;
    if (!live || !this.views.current || live.page !== this.views.current.page || !this.isWrittenOn()) return;
    const far = NEXT_PICTURE * this.desk.screen.canvas.height * this.unitsPerPixel(this.size().width);
    const here = placeOfPicture(live.panes);
    const near = this.views.current.pictures.some(
      ({ x, y, scale = 1 }) =>
        Math.hypot(x - here.x, y - here.y) < far && Math.abs(scale / here.scale - 1) < NEXT_PICTURE,
    );
    if (!near) void this.keepHere();
  }

  /** Stores a picture of the screen as it is, under its page. */
  private keepHere(): Promise<void> {
    const live = this.desk.screen.state.get();
    const { current } = this.views;
    if (!live || !current) return Promise.resolve();
    // Told at once, so that the next mark does not ask for the same picture again.
    const picture: ViewPicture = { material: '', ...placeOfPicture(live.panes) };
    current.pictures.push(picture);
    const file = pictureOf(this.desk.screen.canvas);
    this.keeping = this.keeping.then(async () => {
      try {
        picture.material = await this.desk.upload(await file);
        const stored = current.pictures.filter(({ material }) => material !== '');
        const { sitting } = this.desk;
        await this.desk.connection.request(SCREEN.keep, {
          sitting,
          page: current.page,
          pictures: stored,
        });
      } catch {
        current.pictures = current.pictures.filter((other) => other !== picture);
        if (!this.closed) this.desk.tellProblem(t('screen.aPictureOfTheScreen'));
      }
    });
    return this.keeping;
  }
}

/** Where a picture of the glass lies among the content of the main pane. */
function placeOfPicture(panes: readonly Pane[]): Placement {
  const { x, y, scale } = mainPlace(panes);
  return { x: -x / scale + 0, y: -y / scale + 0, scale: 1 / scale };
}

function pictureOf(canvas: HTMLCanvasElement): Promise<Blob> {
  const copy = document.createElement('canvas');
  copy.width = canvas.width;
  copy.height = canvas.height;
  copy.getContext('2d')!.drawImage(canvas, 0, 0);
  return new Promise((resolve, reject) => {
    const done = (blob: Blob | null) => (blob ? resolve(blob) : reject(new Error('no picture')));
    copy.toBlob(done, 'image/jpeg', 0.92);
  });
}
