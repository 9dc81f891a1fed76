import type { Rect } from '@doodla/core';

/** What lies under the marks, as the page canvas draws it. */
export interface SurfaceView {
  /** Draws what there is within `area` into a context; both in page units. */
  draw(ctx: CanvasRenderingContext2D, area: Rect): void;
  /**
   * Asks for a picture that is sharp at `scale` device pixels per page unit within `visible`.
   * May be called often; `onChange` of the maker is called when something better is there.
   */
  request(scale: number, visible: Rect): void;
  /** Lets go of what it holds, for one that is nobody else's. */
  release?(): void;
  /** Whether there is anything to see yet. */
  readonly shown: boolean;
}
