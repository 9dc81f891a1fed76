import { seekable } from './seekable';
import { VideoWriter } from './videoWriter';

interface Size {
  readonly width: number;
  readonly height: number;
}

/** Larger pictures a slow laptop cannot encode while it teaches; pixels across. */
const WIDEST = 1280;
/** Bits per second of a camera's picture; from trials. */
const BITS = 1e6;

/** A video that is made picture by picture, all of one size, without sound. */
export class VideoMaker {
  /** How long it is by now, seconds. */
  length = 0;

  private constructor(
    private readonly writer: VideoWriter,
    private readonly pieces: readonly Uint8Array<ArrayBuffer>[],
  ) {}

  get width(): number {
    return this.writer.canvas.width;
  }

  get height(): number {
    return this.writer.canvas.height;
  }

  /** Begins one for pictures of a shape. Throws an error with a sentence where the browser makes none. */
  static async begin(shape: Size): Promise<VideoMaker> {
    const pieces: Uint8Array<ArrayBuffer>[] = [];
    const writer = await VideoWriter.begin({ ...sizeOf(shape), bits: BITS }, (bytes) => pieces.push(bytes));
    return new VideoMaker(writer, pieces);
  }

  /** Shows a picture for some seconds; one of another shape in the middle, on black. */
  async add(picture: HTMLCanvasElement, seconds: number): Promise<void> {
    const { canvas } = this.writer;
    const scale = Math.min(canvas.width / picture.width, canvas.height / picture.height);
    const [across, down] = [picture.width * scale, picture.height * scale];
    const ctx = canvas.getContext('2d')!;
    ctx.fillStyle = '#000000';
    ctx.fillRect(0, 0, canvas.width, canvas.height);
    ctx.drawImage(picture, (canvas.width - across) / 2, (canvas.height - down) / 2, across, down);
    const at = this.length;
    this.length += seconds;
    await this.writer.add(at, seconds);
  }

  async finish(name: string): Promise<File> {
    await this.writer.finish();
    const { type, ending } = this.writer;
    const whole = await seekable(new Blob([...this.pieces], { type }));
    return new File([whole], `${name}.${ending}`, { type });
  }
}

/** As large as it may be, its sides even, since encoders take no others. */
function sizeOf({ width, height }: Size): Size {
  const scale = Math.min(1, WIDEST / Math.max(width, height));
  const even = (side: number) => Math.max(2, 2 * Math.round((side * scale) / 2));
  return { width: even(width), height: even(height) };
}
