// A line of so many bytes a second between a browser and a server, which counts what runs over it.
import { once } from 'node:events';
import { connect, createServer } from 'node:net';
import { setTimeout as wait } from 'node:timers/promises';

/** What is let through at once; small, so that connections share the line fairly. */
const PIECE = 1460;

export class SlowLine {
  /** Bytes that have come down so far, with the head lines of every answer. */
  down = 0;
  #free = 0;

  /** @param bytesPerSecond of all connections together, in each direction's own right. */
  constructor(port, bytesPerSecond) {
    this.port = port;
    this.perMs = bytesPerSecond / 1000;
  }

  async open() {
    this.server = createServer((near) => {
      const far = connect(this.port, '127.0.0.1');
      near.setNoDelay(true);
      far.setNoDelay(true);
      near.pipe(far);
      this.#trickle(far, near).catch(() => near.destroy()); // Either side may hang up at any time.
      near.on('error', () => far.destroy());
      far.on('error', () => near.destroy());
      near.on('close', () => far.destroy());
    });
    this.server.listen(0, '127.0.0.1');
    await once(this.server, 'listening');
    return this.server.address().port;
  }

  close() {
    this.server.close();
  }

  async #trickle(from, to) {
    for await (const chunk of from)
      for (let i = 0; i < chunk.length; i += PIECE) {
        const piece = chunk.subarray(i, i + PIECE);
        await this.#room(piece.length);
        this.down += piece.length;
        to.write(piece);
      }
    to.end();
  }

  /** Waits until the line is free for so many bytes; the pieces of all connections take turns. */
  async #room(bytes) {
    const now = performance.now();
    this.#free = Math.max(this.#free, now) + bytes / this.perMs;
    if (this.#free > now) await wait(this.#free - now);
  }
}
