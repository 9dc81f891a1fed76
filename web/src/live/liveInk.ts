import type { DrawnMessage, InkStyle, LogRef, Space } from '@doodla/core';
import { LIVE, STRIDE } from '@doodla/core';
import type { Connection } from './connection';
import { Store } from './store';

/** A stroke that somebody else is drawing right now. */
export interface LiveStroke {
  id: string;
  page: string;
  author: string;
  style: InkStyle;
  pressure: boolean;
  points: number[];
  /** Milliseconds after which it fades, if it becomes no mark. */
  fade?: number;
  /** How much of it is still to be seen, 0 to 1. */
  left?: number;
}

/** The last part of its time in which ink fades. */
const FADING_MS = 700;

/** A stroke of which nothing was heard for so long has been given up by its author. */
const SILENCE_MS = 8000;
const SEND_EVERY_MS = 40;

/** Other people's strokes while they are being drawn, and one's own to them. */
export class LiveInk {
  /** Counts changes after which something has to be drawn anew. */
  readonly changed = new Store(0);
  private readonly strokes = new Map<string, LiveStroke & { heardAt: number }>();
  /** Strokes that have become marks; late points of theirs are not drawn again. */
  private readonly finished = new Set<string>();
  private readonly stop: () => void;

  constructor(
    private readonly ref: LogRef,
    private readonly connection: Connection,
  ) {
    this.stop = connection.on<[DrawnMessage]>(
      LIVE.drawn,
      (message) => message.log.id === ref.id && this.hear(message),
    );
  }

  onPage(page: string): LiveStroke[] {
    const now = performance.now();
    for (const [id, { heardAt, fade }] of this.strokes)
      if (now - heardAt > (fade ?? SILENCE_MS)) this.strokes.delete(id);
    const here = [...this.strokes.values()].filter((stroke) => stroke.page === page);
    return here.map(({ heardAt, ...stroke }) => ({ ...stroke, left: leftOf(stroke.fade, now - heardAt) }));
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
  broadcast(
    stroke: string,
    page: string,
    space: Space,
    style: InkStyle,
    pressure: boolean,
    fade?: number,
  ): (points: number[], last?: boolean) => void {
    let sent = 0;
    let sentAt = 0;
    return (points, last = false) => {
      const now = performance.now();
      if ((!last && now - sentAt < SEND_EVERY_MS) || points.length === sent) return;
      const from = sent / STRIDE;
      const message = {
        log: this.ref,
        page,
        space,
        stroke,
        style,
        pressure,
        from,
        points: points.slice(sent, sent + 2000),
        ...(fade !== undefined && { fade }),
      };
      // Ink that fades becomes no mark that would make up for what was lost.
      if (fade === undefined) this.connection.sendVolatile(LIVE.draw, message);
      else this.connection.send(LIVE.draw, message);
      sent += message.points.length;
      sentAt = now;
    };
  }

  close(): void {
    this.stop();
  }

  private hear({ stroke, page, author, style, pressure, points, from, fade }: DrawnMessage): void {
    if (this.finished.has(stroke)) return;
    const known = this.strokes.get(stroke);
    const heardAt = performance.now();
    if (!known)
      this.strokes.set(stroke, {
        id: stroke,
        page,
        author,
        style,
        pressure,
        points: [...points],
        heardAt,
        ...(fade !== undefined && { fade }),
      });
    else if (from * STRIDE >= known.points.length) {
      known.points.push(...points);
      known.heardAt = heardAt;
    }
    this.changed.set(this.changed.get() + 1);
  }
}

function leftOf(fade: number | undefined, age: number): number {
  return fade === undefined ? 1 : Math.max(0, Math.min(1, (fade - age) / FADING_MS));
}
