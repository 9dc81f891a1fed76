import type { Rect } from '@doodla/core';

/** No canvas is larger than small machines can hold, pixels. */
const MOST_PIXELS = 24_000_000;

/** A canvas that covers a part of the page, or the window, and is drawn on in CSS pixels from the page's corner. */
export class Plane {
  readonly canvas = document.createElement('canvas');
  private covered: Rect = { x: 0, y: 0, width: 0, height: 0 };
  private isClean = true;

  /** `still`: it lies on the window and does not scroll with the page. */
  constructor(
    host: Node,
    name: string,
    readonly still = false,
  ) {
    this.canvas.dataset.layer = name;
    this.canvas.className = still ? 'sheet still' : 'sheet';
    host.appendChild(this.canvas);
  }

  /** Lays it over a part of the page; what was drawn is gone. */
  cover(part: Rect): void {
    const { canvas, still } = this;
    this.covered = part;
    const k = Math.min(devicePixelRatio, Math.sqrt(MOST_PIXELS / (part.width * part.height)));
    const [width, height] = [Math.round(part.width * k), Math.round(part.height * k)];
    if (canvas.width !== width || canvas.height !== height) {
      Object.assign(canvas, { width, height });
      this.isClean = true;
    }
    canvas.style.width = `${part.width}px`;
    canvas.style.height = `${part.height}px`;
    if (still) return;
    canvas.style.left = `${part.x}px`;
    canvas.style.top = `${part.y}px`;
  }

  /** Draws anew what `paint` draws; one that is empty and stays so is not touched. */
  draw(isEmpty: boolean, paint: (ctx: CanvasRenderingContext2D) => void): void {
    const { canvas, covered } = this;
    canvas.style.display = isEmpty ? 'none' : '';
    if (isEmpty && this.isClean) return;
    const ctx = canvas.getContext('2d')!;
    ctx.resetTransform();
    ctx.clearRect(0, 0, canvas.width, canvas.height);
    this.isClean = isEmpty;
    if (isEmpty || covered.width === 0) return;
    this.place(ctx);
    paint(ctx);
  }

  /** Draws more over what is there. */
  add(paint: (ctx: CanvasRenderingContext2D) => void): void {
    if (this.covered.width === 0) return;
    this.canvas.style.display = '';
    this.isClean = false;
    const ctx = this.canvas.getContext('2d')!;
    this.place(ctx);
    paint(ctx);
  }

  /** Shows only what is not under any of these parts of the window. */
  leaveOut(parts: readonly Rect[]): void {
    const { x, y, width, height } = this.covered;
    const holes = parts.map((part) => holeOf(part, scrollX - x, scrollY - y));
    const path = parts.length > 0 ? `path(evenodd, "M0 0H${width}V${height}H0Z${holes.join('')}")` : '';
    if (this.canvas.style.clipPath !== path) this.canvas.style.clipPath = path;
  }

  private place(ctx: CanvasRenderingContext2D): void {
    const { canvas, covered } = this;
    const k = canvas.width / covered.width;
    ctx.setTransform(k, 0, 0, k, -covered.x * k, -covered.y * k);
  }
}

function holeOf({ x, y, width, height }: Rect, dx: number, dy: number): string {
  return `M${x + dx} ${y + dy}h${width}v${height}h${-width}Z`;
}
