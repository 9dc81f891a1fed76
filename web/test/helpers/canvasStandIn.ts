import { createCanvas, Path2D } from '@napi-rs/canvas';

/** Frames that were asked for. */
const frames: (() => void)[] = [];

/** Draws what was asked for in a frame, and in the frames that are asked for then. */
export function drawFrames(): void {
  while (frames.length > 0) frames.shift()!();
}

/** An element that canvases are put into; it gives back what is seen of each. */
export class CanvasHost {
  private readonly canvases: ReturnType<typeof createCanvas>[] = [];

  /** As the code under test takes it. */
  get asElement(): HTMLElement {
    return this as unknown as HTMLElement;
  }

  append(canvas: unknown): void {
    this.canvases.push(canvas as ReturnType<typeof createCanvas>);
  }

  /** Gives the room of the pictures back at once. */
  release(): void {
    for (const canvas of this.canvases) canvas.width = 1;
  }

  /** The pixels of the canvas of a name, four bytes each. */
  pixels(name: string): Uint8ClampedArray {
    const canvas = this.canvases.find(
      (each) => (each as unknown as { dataset: { layer?: string } }).dataset.layer === name,
    )!;
    return canvas.getContext('2d').getImageData(0, 0, canvas.width, canvas.height).data;
  }
}

/** Gives the code under test a `document` that makes real canvases, and frames, without a browser. */
export function canvasStandIn(): void {
  const createElement = (name: string) => {
    if (name !== 'canvas') throw new Error(`There is no <${name}> here.`);
    return Object.assign(createCanvas(300, 150), { style: {}, dataset: {}, remove: () => undefined });
  };
  Object.assign(globalThis, {
    document: { createElement },
    Path2D,
    requestAnimationFrame: (frame: () => void) => frames.push(frame),
    cancelAnimationFrame: () => (frames.length = 0),
  });
}
