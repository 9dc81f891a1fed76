import { canEncodeVideo } from '../secure/secureOnly';

/** Codecs that are tried in turn: text stays readable in the first, the second is everywhere. */
const CODECS = ['vp09.00.31.08', 'vp8', 'avc1.42E01F'];
const BITS_PER_SECOND = 2_200_000;
const KEY_EVERY_MS = 6000;
const GIVE_UP_MS = 1500;

interface EncodedVideo {
  key: boolean;
  codec: string;
  bytes: ArrayBuffer;
}

/** Encodes frames as video, as far as this browser can (W3C WebCodecs). */
export class FrameEncoder {
  private encoder: VideoEncoder | undefined;
  private codec = '';
  private size = '';
  private keyAt = -Infinity;
  private waiting: ((chunk: EncodedVideoChunk | undefined) => void) | undefined;

  /** Makes the next frame one that needs none before it. */
  restart(): void {
    this.keyAt = -Infinity;
  }

  /** Undefined where no video can be made of it. `at` is milliseconds. */
  async encode(bitmap: ImageBitmap, at: number): Promise<EncodedVideo | undefined> {
    const encoder = await this.ready(bitmap);
    if (!encoder) return undefined;
    const key = at - this.keyAt >= KEY_EVERY_MS;
    if (key) this.keyAt = at;
    const chunk = await new Promise<EncodedVideoChunk | undefined>((resolve) => {
      this.waiting = resolve;
      setTimeout(() => resolve(undefined), GIVE_UP_MS);
      const frame = new VideoFrame(bitmap, { timestamp: Math.round(at * 1000) });
      encoder.encode(frame, { keyFrame: key });
      frame.close();
    });
    if (!chunk) {
      this.restart();
      return undefined;
    }
    const bytes = new ArrayBuffer(chunk.byteLength);
    chunk.copyTo(bytes);
    return { key: chunk.type === 'key', codec: this.codec, bytes };
  }

  private async ready({ width, height }: ImageBitmap): Promise<VideoEncoder | undefined> {
    if (!canEncodeVideo()) return undefined;
    const size = `${width} ${height}`;
    if (this.encoder?.state === 'configured' && this.size === size) return this.encoder;
    const config = await supported(width, height);
    if (!config) return undefined;
    if (this.encoder?.state === 'configured') this.encoder.close();
    this.encoder = new VideoEncoder({
      output: (chunk) => this.waiting?.(chunk),
      error: () => this.waiting?.(undefined),
    });
    this.encoder.configure(config);
    this.codec = config.codec;
    this.size = size;
    this.restart();
    return this.encoder;
  }
}

async function supported(width: number, height: number): Promise<VideoEncoderConfig | undefined> {
  for (const codec of CODECS) {
    const config: VideoEncoderConfig = {
      codec,
      width,
      height,
      bitrate: BITS_PER_SECOND,
      framerate: 10,
      latencyMode: 'realtime',
    };
    // A codec that cannot even be asked about is one that is not there.
    const answer = await VideoEncoder.isConfigSupported(config).catch(() => undefined);
    if (answer?.supported) return config;
  }
  return undefined;
}
