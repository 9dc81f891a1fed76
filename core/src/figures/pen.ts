import type { Recorder } from '../charts/recorder.js';

export const INK = '#1d2b27';
export const PALE = '#9aa59f';
/** Okabe and Ito 2008, darkened to be seen on paper. */
export const BLUE = '#0072b2';
export const ORANGE = '#c14f00';
export const GREEN = '#007a5e';
export const WATER = '#8cc7ec';
export const WARM = '#f3d9a4';

interface LineLook {
  colour?: string;
  width?: number;
  dash?: number;
}

interface AreaLook extends LineLook {
  /** None where it has no ground. */
  fill?: string | null;
  /** Whether it has an edge. */
  edge?: boolean;
}

interface TextLook {
  size?: number;
  colour?: string;
  align?: 'left' | 'center' | 'right';
}

/** Draws figures by a few strokes; lengths are page units, angles degrees clockwise from the right. */
export class Pen {
  constructor(
    private readonly canvas: Recorder,
    readonly width: number,
    readonly height: number,
  ) {}

  /** A line through points: x, y, x, y … */
  line(points: readonly number[], { colour = INK, width = 2.4, dash = 0 }: LineLook = {}): void {
    this.trace(points);
    this.stroke({ colour, width, dash });
  }

  /** A closed outline. */
  area(points: readonly number[], look: AreaLook = {}): void {
    this.trace(points);
    this.canvas.closePath();
    this.paint(look);
  }

  rect(x: number, y: number, width: number, height: number, look: AreaLook = {}): void {
    this.area([x, y, x + width, y, x + width, y + height, x, y + height], look);
  }

  circle(x: number, y: number, radius: number, look: AreaLook = {}): void {
    this.canvas.beginPath();
    this.canvas.arc(x, y, radius, 0, 2 * Math.PI);
    this.canvas.closePath();
    this.paint(look);
  }

  /** Part of a circle. */
  arc(x: number, y: number, radius: number, from: number, to: number, look: LineLook = {}): void {
    this.line(arcPoints(x, y, radius, from, to), look);
  }

  /** A piece of a round cake. */
  sector(x: number, y: number, radius: number, from: number, to: number, look: AreaLook = {}): void {
    this.area([x, y, ...arcPoints(x, y, radius, from, to)], look);
  }

  arrow(x0: number, y0: number, x1: number, y1: number, look: LineLook & { head?: number } = {}): void {
    const { colour = INK, head = 12 } = look;
    const angle = Math.atan2(y1 - y0, x1 - x0);
    const at = (turn: number, back: number) => [
      x1 - back * Math.cos(angle + turn),
      y1 - back * Math.sin(angle + turn),
    ];
    const neck = at(0, head * 0.7);
    if (Math.hypot(x1 - x0, y1 - y0) > head * 0.7) this.line([x0, y0, ...neck], look);
    this.area([x1, y1, ...at(0.45, head), ...at(-0.45, head)], { fill: colour, edge: false });
  }

  /** Words with the middle of their letters at a height. */
  text(
    text: string,
    x: number,
    y: number,
    { size = 18, colour = INK, align = 'center' }: TextLook = {},
  ): void {
    this.canvas.font = `${size}px serif`;
    this.canvas.fillStyle = colour;
    this.canvas.textAlign = align;
    this.canvas.textBaseline = 'middle';
    this.canvas.fillText(text, x, y);
  }

  widthOf(text: string, size: number): number {
    this.canvas.font = `${size}px serif`;
    return this.canvas.measureText(text).width;
  }

  private trace(points: readonly number[]): void {
    this.canvas.beginPath();
    for (let i = 0; i + 1 < points.length; i += 2)
      if (i === 0) this.canvas.moveTo(points[0]!, points[1]!);
      else this.canvas.lineTo(points[i]!, points[i + 1]!);
  }

  private paint({ fill = null, edge = true, ...line }: AreaLook): void {
    if (fill !== null) {
      this.canvas.fillStyle = fill;
      this.canvas.fill();
    }
    if (edge) this.stroke({ colour: INK, width: 2.4, dash: 0, ...line });
  }

  private stroke({ colour, width, dash }: Required<LineLook>): void {
    this.canvas.strokeStyle = colour;
    this.canvas.lineWidth = width;
    this.canvas.setLineDash(dash > 0 ? [dash, dash] : []);
    this.canvas.stroke();
  }
}

const STEP = 4;

/** Points of a part of a circle, in degrees clockwise from the right. */
export function arcPoints(x: number, y: number, radius: number, from: number, to: number): number[] {
  const steps = Math.max(1, Math.ceil(Math.abs(to - from) / STEP));
  return Array.from({ length: steps + 1 }, (_, i) => {
    const angle = ((from + ((to - from) * i) / steps) * Math.PI) / 180;
    return [x + radius * Math.cos(angle), y + radius * Math.sin(angle)];
  }).flat();
}
