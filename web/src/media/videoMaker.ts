import { BufferTarget, CanvasSource, Output, Quality } from 'mediabunny';
import { canEncodeVideo } from '../secure/secureOnly';
import { t } from '../words';
import { videoKindOf } from './videoKind';

interface Size {
  readonly width: number;
  readonly height: number;
}

/** Larger pictures a slow laptop cannot encode while it teaches; pixels across. */
const WIDEST = 1280;
/** Bits per second of a camera's picture, and seconds between pictures from which a player can begin; from trials. */
const BITS = 1e6;
const KEY_SECONDS = 4;

/** A video that is made picture by picture, all of one size, without sound. */
export class VideoMaker {
  /** How long it is by now, seconds. */
  length = 0;
  private readonly canvas = document.createElement('canvas');
  private readonly output: Output<never, BufferTarget>;
  private readonly frames: CanvasSource;

  private constructor(
    { width, height }: Size,
    private readonly kind: NonNullable<Awaited<ReturnType<typeof videoKindOf>>>,
  ) {
    [this.canvas.width, this.canvas.height] = [width, height];
    this.output = new Output({ format: kind.format as never, target: new BufferTarget() });
    this.frames = new CanvasSource(this.canvas, {
      codec: kind.picture,
      quality: new Quality({ bitrate: BITS }),
      latencyMode: 'realtime',
      keyFrameInterval: KEY_SECONDS,
    });
    this.output.addVideoTrack(this.frames);
  }

  get width(): number {
    return this.canvas.width;
  }

  get height(): number {
    return this.canvas.height;
  }

  /** Begins one for pictures of a shape. Throws an error with a sentence where the browser makes none. */
  static async begin(shape: Size): Promise<VideoMaker> {
    const size = sizeOf(shape);
    const kind = canEncodeVideo() ? await videoKindOf(size, false) : undefined;
    if (!kind) throw new Error(t('explain.noEncoder'));
    const maker = new VideoMaker(size, kind);
    await maker.output.start();
    return maker;
  }

  /** Shows a picture for some seconds; one of another shape in the middle, on black. */
  async add(picture: HTMLCanvasElement, seconds: number): Promise<void> {
    const { width, height } = this.canvas;
    const scale = Math.min(width / picture.width, height / picture.height);
    const [across, down] = [picture.width * scale, picture.height * scale];
    const ctx = this.canvas.getContext('2d')!;
    ctx.fillStyle = '#000000';
    ctx.fillRect(0, 0, width, height);
    ctx.drawImage(picture, (width - across) / 2, (height - down) / 2, across, down);
    const at = this.length;
    this.length += seconds;
    await this.frames.add(at, seconds);
  }

  async finish(name: string): Promise<File> {
    this.frames.close();
    await this.output.finalize();
    const { ending } = this.kind;
    return new File([this.output.target.buffer!], `${name}.${ending}`, { type: `video/${ending}` });
  }
}

/** As large as it may be, its sides even, since encoders take no others. */
function sizeOf({ width, height }: Size): Size {
  const scale = Math.min(1, WIDEST / Math.max(width, height));
  const even = (side: number) => Math.max(2, 2 * Math.round((side * scale) / 2));
  return { width: even(width), height: even(height) };
}
