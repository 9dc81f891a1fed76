import type { ScreenPart, SoundPart } from '@doodla/core';
import { SCREEN } from '@doodla/core';
import type { Line } from '@doodla/core/client';
import { canDecodeVideo } from '../secure/secureOnly';
import type { LiveScreen } from '../live/liveScreen';
import { SoundPlayer } from './soundPlayer';

/** Waiting longer than this for a frame means that it will not come. */
const GIVE_UP_MS = 1500;
/** Parts that wait to be drawn; more means that this device is too slow for video. */
const MOST_WAITING = 12;

/** Draws the screen that somebody else shows, part by part in their order. */
export class ScreenViewer {
  private readonly stops: (() => void)[];
  private queue: Promise<void> = Promise.resolve();
  private waiting = 0;
  private decoder: VideoDecoder | undefined;
  private sound: SoundPlayer | undefined;
  private decoded: ((frame: VideoFrame | undefined) => void) | undefined;
  /** Counts screens, so that what is left of one is not taken for the next. */
  private round = 0;
  /** Whether a whole picture has been drawn, so that parts have something to be put on. */
  private started = false;

  constructor(
    private readonly sitting: string,
    private readonly connection: Line,
    private readonly screen: LiveScreen,
    /** Whether a page is that of the view which the class sees now. */
    private readonly isShown: (page: string) => boolean,
  ) {
    this.stops = [
      connection.on(SCREEN.part, (head: ScreenPart, bytes: ArrayBuffer) => this.take(head, bytes)),
      connection.on(SCREEN.sound, (head: SoundPart, bytes: ArrayBuffer) => this.hear(head, bytes)),
      connection.onOnline(() => this.askForWhole()),
    ];
  }

  /** Forgets the picture; the next screen starts with a whole one. */
  reset(): void {
    this.round += 1;
    this.started = false;
    this.closeDecoder();
    this.sound?.close();
    this.sound = this.screen.sound = undefined;
  }

  close(): void {
    for (const stop of this.stops) stop();
    this.reset();
  }

  askForWhole(): void {
    this.connection.sendVolatile(SCREEN.whole, { sitting: this.sitting });
  }

  private hear(head: SoundPart, bytes: ArrayBuffer): void {
    if (head.sitting !== this.sitting) return;
    this.sound ??= new SoundPlayer();
    this.screen.sound = this.sound.track;
    this.sound.take(head, bytes);
    this.screen.received.sound = this.sound.played;
  }

  private take(head: ScreenPart, bytes: ArrayBuffer): void {
    if (head.sitting !== this.sitting) return;
    if (!this.started && !(head.key && head.kind === 'picture')) return this.askForWhole();
    if (this.waiting >= MOST_WAITING) {
      this.started = false;
      return this.askForWhole();
    }
    this.started = true;
    this.waiting += 1;
    const { round } = this;
    this.queue = this.queue.then(async () => {
      if (round === this.round) await this.draw(head, bytes, round).catch(() => this.askForWhole());
      this.waiting -= 1;
    });
  }

  private async draw(head: ScreenPart, bytes: ArrayBuffer, round: number): Promise<void> {
    const size = { width: head.width, height: head.height };
    const picture =
      head.kind === 'video' ? await this.decode(head, bytes) : await createImageBitmap(new Blob([bytes]));
    if (!picture) return this.askForWhole();
    // The screen may have been taken away while this was being decoded.
    if (round !== this.round) return picture.close();
    const place =
      picture instanceof ImageBitmap
        ? { x: head.x, y: head.y, width: picture.width, height: picture.height }
        : { x: 0, y: 0, ...size };
    if (head.move) this.screen.move(head.move);
    this.screen.draw(picture, size, place);
    picture.close();
    const { page, panes, certain } = head;
    if (this.isShown(page)) this.screen.set({ page, panes, certain });
    this.screen.note(bytes.byteLength, Date.now() - head.at);
  }

  /** Undefined where this browser cannot decode it, or a frame before it is missing. */
  private async decode(head: ScreenPart, bytes: ArrayBuffer): Promise<VideoFrame | undefined> {
    if (!canDecodeVideo()) {
      this.connection.sendVolatile(SCREEN.plain, { sitting: this.sitting });
      return undefined;
    }
    if (head.key) this.openDecoder(head);
    const { decoder } = this;
    if (decoder?.state !== 'configured') return undefined;
    return new Promise((resolve) => {
      this.decoded = resolve;
      setTimeout(() => resolve(undefined), GIVE_UP_MS);
      decoder.decode(
        new EncodedVideoChunk({ type: head.key ? 'key' : 'delta', timestamp: head.at * 1000, data: bytes }),
      );
    });
  }

  private openDecoder(head: ScreenPart): void {
    if (!head.codec || this.decoder?.state === 'configured') return;
    this.decoder = new VideoDecoder({
      output: (frame) => (this.decoded ? this.decoded(frame) : frame.close()),
      error: () => this.decoded?.(undefined),
    });
    this.decoder.configure({
      codec: head.codec,
      codedWidth: head.width,
      codedHeight: head.height,
      optimizeForLatency: true,
    });
  }

  private closeDecoder(): void {
    if (this.decoder?.state === 'configured') this.decoder.close();
    this.decoder = undefined;
  }
}
