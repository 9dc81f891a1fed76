import type { Pane, ScreenMove } from '@doodla/core';
import { samePanes } from '@doodla/core';
import { Store } from '@doodla/core/client';

/** What is known of the screen that is shown. */
export interface LiveState {
  /** The page of the view that is seen. */
  page: string;
  /** Where the parts of it are that have been scrolled, page units. */
  panes: readonly Pane[];
  certain: boolean;
}

const NO_PANES: readonly Pane[] = [];

/** The screen that is shown to the class, as it is on this device: its picture, and where its content is. */
export class LiveScreen {
  readonly state = new Store<LiveState | undefined>(undefined);
  /** Without a size until something has been seen. */
  readonly canvas = Object.assign(document.createElement('canvas'), { width: 0, height: 0 });
  /**
   * What arrived of somebody else's screen: bytes in all, the last delays from there to here, milliseconds,
   * and the seconds of sound that were played.
   */
  readonly received = { bytes: 0, delays: [] as number[], sound: 0 };
  /** What is heard of somebody else's screen, as a track that can be recorded. */
  sound: MediaStreamTrack | undefined;
  /** Counts changes of the picture. */
  readonly frames = new Store(0);

  /** Takes a whole picture, or a part of one. */
  draw(
    picture: CanvasImageSource,
    size: { width: number; height: number },
    place = { x: 0, y: 0, ...size },
  ): void {
    if (this.canvas.width !== size.width || this.canvas.height !== size.height) {
      this.canvas.width = size.width;
      this.canvas.height = size.height;
    }
    this.canvas.getContext('2d')!.drawImage(picture, place.x, place.y, place.width, place.height);
  }

  /** Moves what is there within a rectangle. */
  move({ x, y, width, height, dx, dy }: ScreenMove): void {
    const ctx = this.canvas.getContext('2d')!;
    ctx.save();
    ctx.beginPath();
    ctx.rect(x, y, width, height);
    ctx.clip();
    ctx.drawImage(this.canvas, x, y, width, height, x + dx, y + dy, width, height);
    ctx.restore();
  }

  /** Says where things are; picture and place change together. */
  set(state: LiveState | undefined): void {
    const old = this.state.get();
    const same =
      old &&
      state &&
      old.page === state.page &&
      old.certain === state.certain &&
      samePanes(old.panes, state.panes);
    if (!state) Object.assign(this.canvas, { width: 0, height: 0 });
    if (!same) this.state.set(state);
    this.frames.set(this.frames.get() + 1);
  }

  /** Notes a part that has been drawn. */
  note(bytes: number, delay: number): void {
    this.received.bytes += bytes;
    this.received.delays = [...this.received.delays.slice(-199), delay];
  }

  /** The parts of a page that is being seen live which have moved. */
  panesOf(page: string): readonly Pane[] {
    const state = this.state.get();
    return state?.page === page ? state.panes : NO_PANES;
  }

  /** Whether a page is being seen live. */
  isLive(page: string): boolean {
    return this.state.get()?.page === page;
  }
}
