import type { SoundRecorder } from './soundRecorder';
import { recordSound } from './soundRecorder';
import { videoFile } from './videoFile';
import { VideoWriter } from './videoWriter';

interface Size {
  readonly width: number;
  readonly height: number;
}

/** What is made of what comes. */
export const PARTS = ['picture', 'sound'] as const;
export type VideoPart = (typeof PARTS)[number];

interface MakerOptions {
  /** What is heard with it. */
  readonly sound?: MediaStream | undefined;
  /** Told of all that comes, so that it can be kept elsewhere too. */
  onBytes?(part: VideoPart, bytes: Uint8Array<ArrayBuffer>): void;
  /** Told where sound can be recorded no more. */
  onSoundFailed?(): void;
}

/** Larger pictures a slow laptop cannot encode while it teaches; pixels across. */
const WIDEST = 1280;
/** Bits per second of a camera's picture; from trials. */
const BITS = 1e6;

/** A video that is made picture by picture, all of one size. */
export class VideoMaker {
  /** How long it is by now, seconds. */
  length = 0;
  private sound: SoundRecorder | undefined;
  private since = performance.now();

  private constructor(
    private readonly writer: VideoWriter,
    private readonly pieces: Readonly<Record<VideoPart, Uint8Array<ArrayBuffer>[]>>,
  ) {}

  /** Begins one for pictures of a shape. Throws an error with a sentence where the browser makes none. */
  static async begin(shape: Size, options: MakerOptions = {}): Promise<VideoMaker> {
    const pieces = { picture: [] as Uint8Array<ArrayBuffer>[], sound: [] as Uint8Array<ArrayBuffer>[] };
    const take = (part: VideoPart) => (bytes: Uint8Array<ArrayBuffer>) => {
      pieces[part].push(bytes);
      options.onBytes?.(part, bytes);
    };
    // Sound as most browsers record it goes with these alone into a file that plays anywhere.
    const codecs = options.sound ? (['vp9', 'vp8', 'avc'] as const) : undefined;
    const writer = await VideoWriter.begin({ ...sizeOf(shape), bits: BITS }, take('picture'), codecs);
    const maker = new VideoMaker(writer, pieces);
    if (options.sound)
      maker.sound = await recordSound(options.sound, take('sound'), () => options.onSoundFailed?.());
    maker.since = maker.sound?.startedAt ?? performance.now();
    return maker;
  }

  get width(): number {
    return this.writer.canvas.width;
  }

  get height(): number {
    return this.writer.canvas.height;
  }

  /** Media types of its parts. */
  get types(): Readonly<Record<VideoPart, string | null>> {
    return { picture: this.writer.type, sound: this.sound?.type ?? null };
  }

  /** How many seconds ago it began. */
  get time(): number {
    return (performance.now() - this.since) / 1000;
  }

  /** Shows a picture for some seconds after those before; one of another shape in the middle, on black. */
  add(picture: HTMLCanvasElement, seconds: number): Promise<void> {
    return this.show(picture, this.length, seconds);
  }

  /** Shows a picture from now on; `isKey` says whether what came before it can be read without what comes after. */
  addNow(picture: HTMLCanvasElement, seconds: number, isKey: boolean): Promise<void> {
    return this.show(picture, Math.max(this.length, this.time), seconds, isKey);
  }

  async finish(name: string): Promise<File> {
    await Promise.all([this.writer.finish(), this.sound?.stop()]);
    const { types } = this;
    const picture = new Blob(this.pieces.picture, { type: types.picture! });
    const sound = types.sound === null ? undefined : new Blob(this.pieces.sound, { type: types.sound });
    return videoFile({ picture, sound }, name);
  }

  private async show(
    picture: HTMLCanvasElement,
    at: number,
    seconds: number,
    isKey?: boolean,
  ): Promise<void> {
    const { canvas } = this.writer;
    const scale = Math.min(canvas.width / picture.width, canvas.height / picture.height);
    const [across, down] = [picture.width * scale, picture.height * scale];
    const ctx = canvas.getContext('2d')!;
    ctx.fillStyle = '#000000';
    ctx.fillRect(0, 0, canvas.width, canvas.height);
    ctx.drawImage(picture, (canvas.width - across) / 2, (canvas.height - down) / 2, across, down);
    this.length = at + seconds;
    await this.writer.add(at, seconds, isKey);
  }
}

/** As large as it may be, its sides even, since encoders take no others. */
function sizeOf({ width, height }: Size): Size {
  const scale = Math.min(1, WIDEST / Math.max(width, height));
  const even = (side: number) => Math.max(2, 2 * Math.round((side * scale) / 2));
  return { width: even(width), height: even(height) };
}
