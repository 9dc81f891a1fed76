import type { OutputFormat } from 'mediabunny';
import {
  CanvasSource,
  getFirstEncodableVideoCodec,
  Mp4OutputFormat,
  Output,
  Quality,
  StreamTarget,
  WebMOutputFormat,
} from 'mediabunny';
import { canEncodeVideo } from '../secure/secureOnly';
import { t } from '../words';

export interface VideoForm {
  readonly width: number;
  readonly height: number;
  /** Bits per second. */
  readonly bits: number;
}

/** What is tried in turn: the first plays anywhere. */
const CODECS = ['avc', 'vp9', 'vp8'] as const;
type Codec = (typeof CODECS)[number];
/** Seconds between pictures from which a player can begin, unless it is said otherwise. */
const KEY_SECONDS = 4;

/** A video without sound that is written while it is made: all that comes, one after the other, is a file. */
export class VideoWriter {
  /** What is on it is added. */
  readonly canvas = document.createElement('canvas');
  private readonly frames: CanvasSource;
  private readonly output: Output;

  private constructor(
    { width, height, bits }: VideoForm,
    codec: Codec,
    /** How its file's name ends. */
    readonly ending: 'mp4' | 'webm',
    onBytes: (bytes: Uint8Array<ArrayBuffer>) => void,
  ) {
    [this.canvas.width, this.canvas.height] = [width, height];
    const write = ({ data }: { data: Uint8Array<ArrayBuffer> }) => onBytes(data.slice());
    const target = new StreamTarget(new WritableStream({ write }));
    this.output = new Output({ format: formatOf(ending), target });
    this.frames = new CanvasSource(this.canvas, {
      codec,
      quality: new Quality({ bitrate: bits }),
      latencyMode: 'realtime',
      keyFrameInterval: KEY_SECONDS,
    });
    this.output.addVideoTrack(this.frames);
  }

  /** Begins one of the first kind that the browser makes. Throws an error with a sentence where there is none. */
  static async begin(
    form: VideoForm,
    onBytes: (bytes: Uint8Array<ArrayBuffer>) => void,
    codecs: readonly Codec[] = CODECS,
  ): Promise<VideoWriter> {
    const { width, height } = form;
    const codec = canEncodeVideo() ? await getFirstEncodableVideoCodec([...codecs], { width, height }) : null;
    if (!codec) throw new Error(t('explain.noEncoder'));
    const ending = codec === 'avc' ? 'mp4' : 'webm';
    const writer = new VideoWriter(form, codec as Codec, ending, onBytes);
    await writer.output.start();
    return writer;
  }

  /** Its media type (RFC 6838). */
  get type(): string {
    return `video/${this.ending}`;
  }

  /** Shows what is on the canvas from a time on, seconds; each later than the one before. */
  add(at: number, seconds: number, isKey?: boolean): Promise<void> {
    return this.frames.add(at, seconds, isKey === undefined ? undefined : { keyFrame: isKey });
  }

  /** Resolves when the last of it has come. */
  async finish(): Promise<void> {
    this.frames.close();
    await this.output.finalize();
  }
}

/** Forms that are written from their beginning to their end, and can be read as far as they go. */
function formatOf(ending: 'mp4' | 'webm'): OutputFormat {
  return ending === 'mp4'
    ? new Mp4OutputFormat({ fastStart: 'fragmented' })
    : new WebMOutputFormat({ appendOnly: true });
}
