import type { PointedMessage, PointMessage } from '../live/messages.js';
import { LIVE } from '../live/messages.js';
import type { Line } from './line.js';
import { Store } from './store.js';

/** Where somebody points, with where they pointed a moment ago. */
export interface Pointing {
  page: string;
  /** Newest last; `at` by this device's clock, milliseconds. */
  trail: { x: number; y: number; at: number }[];
}

/** How long the trail lasts. */
export const TRAIL_MS = 350;
/** One of whom nothing was heard for so long has stopped. */
const SILENCE_MS = 4000;
const SEND_EVERY_MS = 25;

/** Dots that leave nothing behind: for the class, others' and one's own to them; while preparing, only one's own. */
export class Pointers {
  /** Counts changes after which something has to be drawn anew. */
  readonly changed = new Store(0);
  private readonly shown = new Map<string, Pointing>();
  private readonly stop: () => void;
  private sentAt = 0;

  constructor(
    /** Undefined where there is no class to tell. */
    private readonly sitting: string | undefined,
    private readonly connection: Line,
    /** What the own dot goes by here. */
    private readonly self: () => string,
  ) {
    this.stop = connection.on<[PointedMessage]>(LIVE.pointed, (message) => {
      if (message.sitting === sitting) this.put(message.author, message);
    });
  }

  /** Those who point at a page now, by who they are. */
  onPage(page: string): [string, Pointing][] {
    const now = performance.now();
    for (const [author, { trail }] of this.shown)
      if (now - (trail.at(-1)?.at ?? 0) > SILENCE_MS) this.shown.delete(author);
    return [...this.shown].filter(([, pointing]) => pointing.page === page);
  }

  /** Points, here and for the class. */
  point(page: string, x: number, y: number): void {
    this.put(this.self(), { page, x, y, gone: false });
    const now = performance.now();
    if (now - this.sentAt < SEND_EVERY_MS) return;
    this.sentAt = now;
    const { sitting } = this;
    if (sitting !== undefined) this.connection.sendVolatile(LIVE.point, { sitting, page, x, y, gone: false });
  }

  /** Stops pointing. */
  rest(page: string): void {
    const place = { page, x: 0, y: 0, gone: true };
    this.put(this.self(), place);
    const { sitting } = this;
    if (sitting !== undefined) this.connection.send(LIVE.point, { sitting, ...place });
  }

  close(): void {
    this.stop();
  }

  private put(author: string, { page, x, y, gone }: Omit<PointMessage, 'sitting'>): void {
    const known = this.shown.get(author);
    if (gone) this.shown.delete(author);
    else {
      const at = performance.now();
      const trail = known?.page === page ? known.trail.filter((spot) => at - spot.at < TRAIL_MS) : [];
      this.shown.set(author, { page, trail: [...trail, { x, y, at }] });
    }
    this.changed.set(this.changed.get() + 1);
  }
}
