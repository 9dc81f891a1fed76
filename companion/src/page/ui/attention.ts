import type { Rect, Timer } from '@doodla/core';
import { Store } from '@doodla/core/client';

/** What leads the eye over a page; places are CSS pixels of the window, since that is what a class looks at. */
export type Focus =
  | { kind: 'spotlight'; box: Rect; dark: number }
  | { kind: 'cover'; box: Rect }
  | { kind: 'magnifier'; box: Rect; zoom: number };

/** What leads the eye, and the time, on the page of a tab. */
export class Attention {
  readonly focus = new Store<Focus | undefined>(undefined);
  readonly countdown = new Store<Timer | undefined>(undefined);

  /** Begins to count down, milliseconds. */
  countDown(length: number): void {
    const startedAt = Date.now();
    this.countdown.set({ kind: 'countdown', length, before: 0, startedAt, sound: true, large: false });
  }

  /** Puts one of them over the page, in the place of another, or puts it away. */
  toggle(kind: Focus['kind']): void {
    const isOn = this.focus.get()?.kind === kind;
    this.focus.set(isOn ? undefined : firstOf(kind));
  }
}

function firstOf(kind: Focus['kind']): Focus {
  const { innerWidth: w, innerHeight: h } = window;
  switch (kind) {
    case 'spotlight':
      return { kind, box: { x: w * 0.3, y: h * 0.3, width: w * 0.4, height: h * 0.4 }, dark: 0.75 };
    case 'cover':
      return { kind, box: { x: 0, y: 0, width: w, height: h } };
    case 'magnifier':
      return { kind, box: { x: w / 2 - 140, y: h / 2 - 140, width: 280, height: 280 }, zoom: 2 };
  }
}
