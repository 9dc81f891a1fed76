import type { DrawnMessage, InkStyle, LogRef, Space } from '@doodla/core';
import { LIVE, STRIDE } from '@doodla/core';
import type { Connection } from './connection';

/** A stroke that somebody else is drawing right now. */
export interface LiveStroke {
  id: string;
  page: string;
  author: string;
  style: InkStyle;
  pressure: boolean;
  points: number[];
}

/** A stroke of which nothing was heard for so long has been given up by its author. */
const SILENCE_MS = 8000;
const SEND_EVERY_MS = 40;

/** Other people's strokes while they are being drawn, and one's own to them. */
export class LiveInk {
  /** Told when something has to be drawn anew. */
  onChange: () => void = () => undefined;
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
    const oldest = performance.now() - SILENCE_MS;
    for (const [id, { heardAt }] of this.strokes) if (heardAt < oldest) this.strokes.delete(id);
    return [...this.strokes.values()].filter((stroke) => stroke.page === page);
  }

  /** Forgets a stroke that has become a mark. */
  finish(id: string): void {
    this.finished.add(id);
    if (this.strokes.delete(id)) this.onChange();
  }

  /** Starts telling others of a stroke; call the result with all its points as it grows. */
  broadcast(
    stroke: string,
    page: string,
    space: Space,
    style: InkStyle,
    pressure: boolean,
  ): (points: number[]) => void {
    let sent = 0;
    let sentAt = 0;
    return (points) => {
      const now = performance.now();
      if (now - sentAt < SEND_EVERY_MS || points.length === sent) return;
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
      };
      this.connection.sendVolatile(LIVE.draw, message);
      sent += message.points.length;
      sentAt = now;
    };
  }

  close(): void {
    this.stop();
  }

  private hear({ stroke, page, author, style, pressure, points, from }: DrawnMessage): void {
    if (this.finished.has(stroke)) return;
    const known = this.strokes.get(stroke);
    const heardAt = performance.now();
    if (!known)
      this.strokes.set(stroke, { id: stroke, page, author, style, pressure, points: [...points], heardAt });
    else if (from * STRIDE >= known.points.length) {
      known.points.push(...points);
      known.heardAt = heardAt;
    }
    this.onChange();
  }
}
