import type { LogRef } from '../live/messages.js';
import type { DrawMessage, DrawnMessage, DrawnPart, InkHead } from '../live/wetInk.js';
import type { Space } from '../marks/shared.js';
import type { InkStyle } from '../marks/stroke/strokeMark.js';
import { packPoints, unpackPoints } from '../ink/packedPoints.js';
import { STRIDE } from '../ink/points.js';
import { LIVE } from '../live/messages.js';
import { INK_TICK_MS } from '../live/wetInk.js';
import { isShownIn } from '../ops/visibility.js';
import type { Line } from './line.js';
import { Store } from './store.js';

/** A stroke that somebody else is drawing right now. */
export interface LiveStroke {
  id: string;
  page: string;
  author: string;
  space: Space;
  style: InkStyle;
  pressure: boolean;
  points: number[];
  /** The part of a shown screen that it is drawn on; see `panes`. */
  pane?: number;
  /** Milliseconds after which it fades, if it becomes no mark. */
  fade?: number;
  /** How much of it is still to be seen, 0 to 1. */
  left?: number;
}

/** The last part of its time in which ink fades. */
const FADING_MS = 700;

/** A stroke of which nothing was heard for so long has been given up by its author. */
const SILENCE_MS = 8000;
/** Most points in one message. */
const MOST_POINTS = 500;
/** Every so many parts say again what the stroke is like, for those who join meanwhile. */
const HEAD_EVERY = 20;

/** Other people's strokes while they are being drawn, and one's own to them; ink that fades, also where nobody else is. */
export class LiveInk {
  /** Counts changes after which something has to be drawn anew. */
  readonly changed = new Store(0);
  private readonly strokes = new Map<string, LiveStroke & { heardAt: number }>();
  /** Strokes that have become marks; late points of theirs are not drawn again. */
  private readonly finished = new Set<string>();
  /** Strokes drawn here, which come back with those of others. */
  private readonly own = new Set<string>();
  private readonly stop: () => void;

  constructor(
    /** Undefined where there is no class to tell. */
    private readonly ref: LogRef | undefined,
    private readonly connection: Line,
  ) {
    this.stop = connection.on<[DrawnMessage]>(LIVE.drawn, ({ log, page, parts }) => {
      if (log !== ref?.id) return;
      for (const part of parts) this.hear(page, part);
      this.changed.set(this.changed.get() + 1);
    });
  }

  /** What is being drawn on a page, as far as it is shown to whoever works in a space. */
  onPage(page: string, working: Space): LiveStroke[] {
    const now = performance.now();
    for (const [id, { heardAt, fade }] of this.strokes)
      if (now - heardAt > (fade ?? SILENCE_MS)) this.strokes.delete(id);
    const here = [...this.strokes.values()].filter(
      (stroke) => stroke.page === page && isShownIn(working, stroke.space),
    );
    return here.map(({ heardAt, ...stroke }) => ({ ...stroke, left: leftOf(stroke.fade, now - heardAt) }));
  }

  /** Who is drawing, on whichever page. */
  drawing(): Set<string> {
    return new Set([...this.strokes.values()].map(({ author }) => author));
  }

  /** Whether some ink on a page is about to fade, so that it has to be drawn again and again. */
  isFading(page: string): boolean {
    return [...this.strokes.values()].some((stroke) => stroke.page === page && stroke.fade !== undefined);
  }

  /** Leaves own ink to fade here. */
  leave(stroke: LiveStroke): void {
    this.strokes.set(stroke.id, { ...stroke, heardAt: performance.now() });
    this.changed.set(this.changed.get() + 1);
  }

  /** Forgets a stroke that has become a mark. */
  finish(id: string): void {
    this.finished.add(id);
    if (this.strokes.delete(id)) this.changed.set(this.changed.get() + 1);
  }

  /** Starts telling others of a stroke; call the result with all its points as it grows. */
  broadcast(stroke: string, page: string, head: InkHead): (points: number[], last?: boolean) => void {
    const { ref } = this;
    if (!ref) return () => undefined;
    this.own.add(stroke);
    let sent = 0;
    let sentAt = 0;
    let parts = 0;
    return (points, last = false) => {
      const now = performance.now();
      if ((!last && now - sentAt < INK_TICK_MS) || points.length === sent) return;
      const some = points.slice(sent, sent + MOST_POINTS * STRIDE);
      const packed = packPoints(some);
      if (packed === undefined) return;
      const message: DrawMessage = {
        log: ref,
        page,
        stroke,
        from: sent / STRIDE,
        points: packed,
        ...(parts++ % HEAD_EVERY === 0 && { head }),
      };
      // Without a connection it would wait and come late; the finished stroke waits by itself.
      if (this.connection.status.get() === 'online') this.connection.send(LIVE.draw, message);
      sent += some.length;
      sentAt = now;
    };
  }

  close(): void {
    this.stop();
  }

  private hear(page: string, { stroke, author, head, points, from }: DrawnPart): void {
    if (this.finished.has(stroke) || this.own.has(stroke)) return;
    const heard = unpackPoints(points) ?? [];
    const known = this.strokes.get(stroke);
    const heardAt = performance.now();
    if (known) {
      if (from * STRIDE >= known.points.length) known.points.push(...heard);
      known.heardAt = heardAt;
    } else if (head) {
      this.strokes.set(stroke, { ...head, id: stroke, page, author, points: heard, heardAt });
    }
  }
}

function leftOf(fade: number | undefined, age: number): number {
  return fade === undefined ? 1 : Math.max(0, Math.min(1, (fade - age) / FADING_MS));
}
