// Pens that draw at a steady pace, and what arrives of it.
import { INK_TICK_MS, packPoints } from '@doodla/core';
import { aStroke, handPoints } from './school.mjs';

export const SECONDS = Number(process.env.BENCH_SECONDS ?? 8);
/** Milliseconds between a browser's messages while one draws, with so many new points. */
const EVERY_MS = INK_TICK_MS;
export const POINTS = 2;
/** A stroke is so long, then it is finished and the next begun. */
export const STROKE_POINTS = 60;
const STYLE = { nature: 'pen', colour: '#0072b2', width: 3, opacity: 1 };

/** One pen: draws stroke after stroke, at a steady pace from a moment of its own. */
export class Writer {
  #from = 0;
  #stroke = 0;
  #length;
  sent = 0;

  /** `first`: points of the first stroke; where all have the same, all lift at the same moment, again and again. */
  constructor(socket, author, log, page, tally, first = STROKE_POINTS, space = 'class') {
    Object.assign(this, { socket, author, log, page, tally, space });
    this.#length = first;
  }

  step() {
    const points = handPoints(POINTS, this.#from);
    const stroke = `${this.author.slice(0, 12)}-${this.#stroke}`;
    this.tally.drawn.set(`${stroke} ${this.#from}`, performance.now());
    this.socket.emit('draw', {
      log: this.log,
      page: this.page,
      stroke,
      from: this.#from,
      points: packPoints(points),
      ...(this.#from === 0 && { head: { space: this.space, style: STYLE, pressure: true } }),
    });
    this.sent += POINTS;
    this.#from += POINTS;
    if (this.#from < this.#length) return;
    this.#from = 0;
    this.#length = STROKE_POINTS;
    this.#stroke += 1;
    this.#finish();
  }

  #finish() {
    const points = packPoints(handPoints(STROKE_POINTS, this.#stroke));
    const mark = { ...aStroke(this.page, this.author, null, points), space: this.space };
    this.tally.finished.set(mark.id, performance.now());
    this.tally.finishedAt.push(Date.now());
    const operation = { id: `op-${mark.id}`, changes: [{ do: 'add', mark }] };
    this.socket
      .ask('submit', { log: this.log, operation })
      .catch((error) => this.tally.refused.push(error.message));
  }
}

/** Counts what arrives of what was drawn in one class. */
export class Tally {
  drawn = new Map();
  finished = new Map();
  /** When each was finished, by the clock of this machine. */
  finishedAt = [];
  refused = [];
  heard = 0;
  delays = [];
  finishedDelays = [];

  listen(socket, isOwn) {
    socket.onEvent = (event, message) => {
      const now = performance.now();
      if (event === 'drawn')
        for (const { stroke, from } of message.parts) {
          if (isOwn(stroke)) continue;
          this.heard += POINTS;
          this.delays.push(now - this.drawn.get(`${stroke} ${from}`));
        }
      else if (event === 'operations')
        for (const { author, operation } of message.logged) {
          const at = this.finished.get(operation.changes[0].mark?.id);
          if (at !== undefined && !isOwn(author)) this.finishedDelays.push(now - at);
        }
    };
  }
}

/** Lets all writers draw for a while, each at its own place in the beat. */
export async function write(writers) {
  const started = performance.now();
  const beats = Math.floor((SECONDS * 1000) / EVERY_MS);
  await Promise.all(
    writers.map(
      (writer, i) =>
        new Promise((resolve) => {
          let beat = 0;
          const next = () => {
            writer.step();
            if (++beat >= beats) return resolve();
            const due = started + beat * EVERY_MS + (i * EVERY_MS) / writers.length;
            setTimeout(next, Math.max(0, due - performance.now()));
          };
          setTimeout(next, (i * EVERY_MS) / writers.length);
        }),
    ),
  );
  await new Promise((resolve) => setTimeout(resolve, 1500));
}
