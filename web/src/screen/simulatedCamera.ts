import type { ScreenSource } from './sources';

const SIZE = { width: 1280, height: 720 };
const FRAME_MS = 120;

/** A document camera that is drawn here: a sheet of paper on a table, and a hand's shadow that moves. */
export class SimulatedCamera implements ScreenSource {
  readonly kind = 'camera';
  readonly picture = document.createElement('canvas');
  onEnded: () => void = () => undefined;
  private readonly timer: ReturnType<typeof setInterval>;
  private count = 0;

  constructor() {
    Object.assign(this.picture, SIZE);
    this.draw();
    this.timer = setInterval(() => this.draw(), FRAME_MS);
  }

  size(): { width: number; height: number } {
    return SIZE;
  }

  stop(): void {
    clearInterval(this.timer);
  }

  private draw(): void {
    const ctx = this.picture.getContext('2d')!;
    ctx.fillStyle = '#6b5a45';
    ctx.fillRect(0, 0, SIZE.width, SIZE.height);
    ctx.save();
    ctx.translate(640, 360);
    ctx.rotate(-0.06);
    ctx.fillStyle = '#f4f0e4';
    ctx.fillRect(-420, -290, 840, 580);
    ctx.fillStyle = '#26302a';
    ctx.font = 'bold 44px Andika, sans-serif';
    ctx.fillText('Draw a bridge that carries a book', -370, -210);
    ctx.strokeStyle = '#26302a';
    ctx.lineWidth = 3;
    ctx.strokeRect(-370, -160, 740, 380);
    ctx.restore();
    // A shadow that wanders a little, as above any desk.
    this.count += 1;
    ctx.fillStyle = 'rgb(0 0 0 / 0.12)';
    ctx.beginPath();
    ctx.ellipse(1050 + 20 * Math.sin(this.count / 9), 560, 130, 90, 0.5, 0, Math.PI * 2);
    ctx.fill();
  }
}
