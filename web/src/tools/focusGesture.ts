import { rectFromCorners } from '@doodla/core';
import type { Desk } from '../desk/desk';
import type { Preview } from '../canvas/preview';
import type { Gesture, PenPoint } from '../desk/gesture';

/** Smaller is not meant as a region; page units. */
const LEAST = 20;
/** Most corners of a free shape. */
const MOST_CORNERS = 100;

/** Draws round a region to lead the class's eye to: a rectangle that fills the screen, or a free spotlight. */
export class FocusGesture implements Gesture {
  private readonly points: number[] = [];

  constructor(
    private readonly desk: Pick<Desk, 'classroom' | 'pageId' | 'takeTool'>,
    private readonly kind: 'enlarge' | 'outline',
    private readonly start: PenPoint,
  ) {
    this.points.push(start.x, start.y);
  }

  get preview(): Preview {
    if (this.kind === 'outline') return { area: this.points };
    const [x, y] = this.points.slice(-2) as [number, number];
    const { start } = this;
    return { area: [start.x, start.y, x, start.y, x, y, start.x, y, start.x, start.y] };
  }

  move(points: readonly PenPoint[]): void {
    for (const { x, y } of points) this.points.push(x, y);
  }

  end(): void {
    const { classroom } = this.desk;
    const page = this.desk.pageId.get();
    const box = this.box();
    this.desk.takeTool('pen');
    if (!classroom || page === undefined || box.width < LEAST || box.height < LEAST) return;
    const led = { page, shared: true, ...box };
    if (this.kind === 'enlarge') return classroom.setScene({ focus: { kind: 'enlarged', ...led } });
    const outline = this.outline(box);
    classroom.setScene({ focus: { kind: 'spotlight', shape: 'free', dark: 0.75, ...led, outline } });
  }

  cancel(): void {
    this.points.length = 0;
  }

  private box() {
    if (this.kind === 'enlarge') {
      const [x, y] = this.points.slice(-2) as [number, number];
      return rectFromCorners(this.start.x, this.start.y, x, y);
    }
    const xs = this.points.filter((_, i) => i % 2 === 0);
    const ys = this.points.filter((_, i) => i % 2 === 1);
    return rectFromCorners(Math.min(...xs), Math.min(...ys), Math.max(...xs), Math.max(...ys));
  }

  /** Corners within the box, each 0 to 1; not more than are needed. */
  private outline({
    x,
    y,
    width,
    height,
  }: {
    x: number;
    y: number;
    width: number;
    height: number;
  }): number[] {
    const count = this.points.length / 2;
    const every = Math.max(1, Math.ceil(count / MOST_CORNERS));
    const part = (value: number) => Math.min(1, Math.max(0, value));
    return Array.from({ length: Math.ceil(count / every) }, (_, i) => i * every).flatMap((i) => [
      part((this.points[2 * i]! - x) / width),
      part((this.points[2 * i + 1]! - y) / height),
    ]);
  }
}
