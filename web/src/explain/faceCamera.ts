import type { ScreenSource } from '../screen/sources';
import { openCamera } from '../screen/sources';
import type { PictureSource } from './pictureTrack';

/** Pixels that a small picture needs. */
const SIZE = { width: { ideal: 640 }, height: { ideal: 480 } };

/** The camera that sees whoever explains. */
export class FaceCamera implements PictureSource {
  private isGone = false;

  private constructor(private readonly source: ScreenSource) {}

  /** Opens a camera. Throws SourceError. */
  static async open(): Promise<FaceCamera> {
    return new FaceCamera(await openCamera(undefined, SIZE));
  }

  /** Tells when it sees nothing more, such as where it was unplugged. */
  onGone(tell: () => void): void {
    this.source.onEnded = () => {
      this.isGone = true;
      tell();
    };
  }

  /** What it sees, to be shown to whoever explains. */
  get stream(): MediaStream {
    return (this.source.picture as HTMLVideoElement).srcObject as MediaStream;
  }

  get stamp(): unknown {
    return !this.isGone && this.source.size().width > 0
      ? (this.source.picture as HTMLVideoElement).currentTime
      : undefined;
  }

  /** Fills a canvas with the middle of it. */
  draw(canvas: HTMLCanvasElement): void {
    const { width, height } = this.source.size();
    const scale = Math.max(canvas.width / width, canvas.height / height);
    const [across, down] = [width * scale, height * scale];
    canvas
      .getContext('2d')!
      .drawImage(this.source.picture, (canvas.width - across) / 2, (canvas.height - down) / 2, across, down);
  }

  close(): void {
    this.source.stop();
  }
}
