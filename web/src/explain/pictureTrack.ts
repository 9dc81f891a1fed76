import type { VideoForm, VideoWriter } from '../media/videoWriter';

/** Something that can be recorded as a video. */
export interface PictureSource {
  /** Another whenever it may look otherwise; undefined while there is nothing to be seen. */
  readonly stamp: unknown;
  /** Fills a canvas with it. */
  draw(canvas: HTMLCanvasElement): void;
}

/** What a video is written by; a test makes one by hand. */
export type Writer = Pick<VideoWriter, 'add' | 'canvas' | 'finish' | 'type'>;

interface PictureOptions {
  /** How many milliseconds ago the take began. */
  time(): number;
  /** Begins the video; by then there is something to be seen. */
  begin(form: VideoForm, onBytes: (bytes: Uint8Array<ArrayBuffer>) => void): Promise<Writer>;
  /** Told once where it cannot be recorded. */
  onFailed(error: Error): void;
}

const LOOK_MS = 100;
/** What does not change is written again so often, so that no place is far from a picture; milliseconds. */
const STILL_MS = 1000;
/**
 * What has changed is complete in a file only with the next picture from which a player can begin, so one comes a second after;
 * of what stands still seldom, since each takes as much room as a picture. Milliseconds.
 */
const KEY_MS = 1000;
const STILL_KEY_MS = 10_000;

/** Records what is to be seen of something while a take lasts, at the take's times, as a video that can be read as far as it goes. */
export class PictureTrack {
  /** Its media type; null as long as nothing was to be seen. */
  type: string | null = null;
  private writer: Writer | undefined;
  private bytes: Uint8Array<ArrayBuffer>[] = [];
  private looking: Promise<void> | undefined;
  private isOver = false;
  private stamp: unknown;
  private addedAt = 0;
  private keyAt = 0;
  private isChanged = true;
  /** Runs while there is something to be seen. */
  private timer: ReturnType<typeof setInterval> | undefined;

  constructor(
    private readonly source: PictureSource,
    private readonly form: VideoForm,
    private readonly options: PictureOptions,
  ) {
    this.look();
  }

  /**
   * Takes a picture, if it looks otherwise than before and the one before is taken; goes on by itself as long as there is
   * something to be seen.
   */
  look(): void {
    if (this.isOver) return;
    if (this.source.stamp === undefined) return this.rest();
    this.timer ??= setInterval(() => this.look(), LOOK_MS);
    if (this.looking) return;
    this.looking = this.take()
      .catch((error: Error) => {
        this.isOver = true;
        this.rest();
        this.options.onFailed(error);
      })
      .finally(() => (this.looking = undefined));
  }

  /** What was written since it was last taken. */
  written(): Uint8Array<ArrayBuffer>[] {
    return this.bytes.splice(0);
  }

  /** Ends it; resolves when the last of it is written. */
  async stop(): Promise<void> {
    this.isOver = true;
    this.rest();
    await this.looking;
    // What was written before it failed is told already, and can be read.
    await this.writer?.finish().catch(() => undefined);
  }

  private rest(): void {
    clearInterval(this.timer);
    this.timer = undefined;
  }

  private async take(): Promise<void> {
    const { source, options } = this;
    this.writer ??= await this.begin();
    const now = options.time();
    const { stamp } = source;
    const isNew = stamp !== this.stamp;
    // It may be gone by now, and two pictures have two times.
    if (stamp === undefined || now <= this.addedAt || (!isNew && now - this.addedAt < STILL_MS)) return;
    this.isChanged ||= isNew;
    const isKey = now - this.keyAt >= (this.isChanged ? KEY_MS : STILL_KEY_MS);
    if (isKey) this.keyAt = now;
    if (isKey) this.isChanged = isNew;
    this.stamp = stamp;
    this.addedAt = now;
    source.draw(this.writer.canvas);
    await this.writer.add(now / 1000, LOOK_MS / 1000, isKey);
  }

  /**
   * All videos begin as their takes do, whatever a player makes of one that begins later; with what is seen first, since getting
   * ready takes a while.
   */
  private async begin(): Promise<Writer> {
    const writer = await this.options.begin(this.form, (bytes) => this.bytes.push(bytes));
    this.type = writer.type;
    this.source.draw(writer.canvas);
    await writer.add(0, LOOK_MS / 1000, true);
    return writer;
  }
}
