import { colord } from 'colord';
import { straightRing } from '../formulas/curves.js';
import type { Matrix } from '../geometry/matrix.js';
import { applyMatrix, compose } from '../geometry/matrix.js';
import type { DrawingPart } from '../marks/plot/plotMark.js';
import { rounded } from '../plots/labels.js';

/** Words that were written on a recorder. */
export interface RecordedText {
  text: string;
  size: number;
  colour: string;
  /** From the left end of its base line to where it lies. */
  matrix: Matrix;
}

/** Gives how broad a text is in letters of a size. */
export type Measure = (text: string, size: number) => number;

type Point = [number, number];
interface State {
  matrix: Matrix;
  fillStyle: string;
  strokeStyle: string;
  lineWidth: number;
  dash: readonly number[];
  font: string;
  textAlign: string;
  textBaseline: string;
  globalAlpha: number;
}

const FIRST: State = {
  matrix: [1, 0, 0, 1, 0, 0],
  fillStyle: '#000000',
  strokeStyle: '#000000',
  lineWidth: 1,
  dash: [],
  font: '10px serif',
  textAlign: 'start',
  textBaseline: 'alphabetic',
  globalAlpha: 1,
};
/** Where a text's base line is below the place it is written at, in its size. */
const BASELINES: Readonly<Record<string, number>> = { top: 0.7, hanging: 0.7, middle: 0.25, bottom: -0.2 };
/** An arc is drawn as straight pieces of at most this angle. */
const ARC_STEP = Math.PI / 36;
const CURVE_PIECES = 12;
/** What is fainter is not seen. */
const FAINT = 0.02;

/**
 * What is drawn on a canvas (the part of the HTML standard's CanvasRenderingContext2D that charts use), kept as lines and closed
 * outlines instead of dots. Clipping is left out: charts clip only what lies within their frame anyway.
 */
export class Recorder implements State {
  readonly parts: DrawingPart[] = [];
  readonly texts: RecordedText[] = [];
  readonly canvas: { width: number; height: number; getContext(): Recorder };
  matrix: Matrix = FIRST.matrix;
  fillStyle = FIRST.fillStyle;
  strokeStyle = FIRST.strokeStyle;
  lineWidth = FIRST.lineWidth;
  dash: readonly number[] = FIRST.dash;
  font = FIRST.font;
  textAlign = FIRST.textAlign;
  textBaseline = FIRST.textBaseline;
  globalAlpha = FIRST.globalAlpha;
  private readonly kept: State[] = [];
  private lines: Point[][] = [];

  constructor(
    width: number,
    height: number,
    private readonly measure: Measure,
  ) {
    this.canvas = { width, height, getContext: () => this };
  }

  save(): void {
    const { matrix, fillStyle, strokeStyle, lineWidth, dash, font, textAlign, textBaseline, globalAlpha } =
      this;
    this.kept.push({
      matrix,
      fillStyle,
      strokeStyle,
      lineWidth,
      dash,
      font,
      textAlign,
      textBaseline,
      globalAlpha,
    });
  }

  restore(): void {
    Object.assign(this, this.kept.pop());
  }

  setTransform(...matrix: Matrix): void {
    this.matrix = matrix;
  }

  resetTransform(): void {
    this.matrix = FIRST.matrix;
  }

  translate(x: number, y: number): void {
    this.matrix = compose([1, 0, 0, 1, x, y], this.matrix);
  }

  rotate(angle: number): void {
    const [cos, sin] = [Math.cos(angle), Math.sin(angle)];
    this.matrix = compose([cos, sin, -sin, cos, 0, 0], this.matrix);
  }

  setLineDash(dash: readonly number[]): void {
    this.dash = dash;
  }

  /** A canvas of its own keeps what was drawn; this one begins anew. */
  clearRect(): void {
    this.parts.length = 0;
    this.texts.length = 0;
  }

  clip(): void {
    // See above.
  }

  beginPath(): void {
    this.lines = [];
  }

  moveTo(x: number, y: number): void {
    this.lines.push([applyMatrix(this.matrix, x, y)]);
  }

  lineTo(x: number, y: number): void {
    if (this.lines.length === 0) return this.moveTo(x, y);
    this.lines.at(-1)!.push(applyMatrix(this.matrix, x, y));
  }

  bezierCurveTo(ax: number, ay: number, bx: number, by: number, x: number, y: number): void {
    const last = this.lines.at(-1)?.at(-1);
    if (!last) return this.moveTo(x, y);
    const [a, b, end] = [applyMatrix(this.matrix, ax, ay), applyMatrix(this.matrix, bx, by), applyMatrix(this.matrix, x, y)]; // prettier-ignore
    for (let i = 1; i <= CURVE_PIECES; i++) {
      const t = i / CURVE_PIECES;
      const at = (k: 0 | 1) =>
        (1 - t) ** 3 * last[k] + 3 * (1 - t) ** 2 * t * a[k] + 3 * (1 - t) * t ** 2 * b[k] + t ** 3 * end[k];
      this.lines.at(-1)!.push([at(0), at(1)]);
    }
  }

  arc(x: number, y: number, radius: number, from: number, to: number, isBack = false): void {
    const whole = 2 * Math.PI;
    const turn = isBack ? from - to : to - from;
    const sweep = Math.abs(turn) >= whole ? whole : ((turn % whole) + whole) % whole;
    const pieces = Math.max(1, Math.ceil(sweep / ARC_STEP));
    for (let i = 0; i <= pieces; i++) {
      const angle = from + ((isBack ? -sweep : sweep) * i) / pieces;
      this.lineTo(x + radius * Math.cos(angle), y + radius * Math.sin(angle));
    }
  }

  rect(x: number, y: number, width: number, height: number): void {
    this.moveTo(x, y);
    this.lineTo(x + width, y);
    this.lineTo(x + width, y + height);
    this.lineTo(x, y + height);
    this.closePath();
  }

  closePath(): void {
    const line = this.lines.at(-1);
    if (!line || line.length < 2) return;
    line.push([...line[0]!]);
    this.lines.push([[...line[0]!]]);
  }

  fill(): void {
    const { hex, alpha } = this.colour(this.fillStyle);
    const rings = this.lines.filter((line) => line.length > 2).map(ringThrough);
    if (alpha > FAINT && rings.length > 0)
      this.parts.push({ rings, colour: hex, opacity: Math.max(0.05, alpha) });
  }

  stroke(): void {
    const { hex, alpha } = this.colour(this.strokeStyle);
    if (alpha <= FAINT || !(this.lineWidth > 0)) return;
    for (const line of this.lines)
      if (line.length > 1)
        this.parts.push({
          line: line.flat().map(rounded),
          colour: hex,
          width: Math.max(0.1, this.lineWidth),
          dash: this.dash[0] ?? 0,
        });
  }

  fillRect(x: number, y: number, width: number, height: number): void {
    const { lines } = this;
    this.lines = [];
    this.rect(x, y, width, height);
    this.fill();
    this.lines = lines;
  }

  strokeRect(x: number, y: number, width: number, height: number): void {
    const { lines } = this;
    this.lines = [];
    this.rect(x, y, width, height);
    this.stroke();
    this.lines = lines;
  }

  measureText(text: string): { width: number } {
    return { width: this.measure(text, this.size) };
  }

  fillText(text: string, x: number, y: number): void {
    const { hex, alpha } = this.colour(this.fillStyle);
    if (alpha <= FAINT || text.trim() === '') return;
    const shares: Readonly<Record<string, number>> = { center: 0.5, right: 1, end: 1 };
    const left = x - this.measure(text, this.size) * (shares[this.textAlign] ?? 0);
    const base = y + (BASELINES[this.textBaseline] ?? 0) * this.size;
    const matrix = compose([1, 0, 0, 1, left, base], this.matrix);
    this.texts.push({ text, size: this.size, colour: hex, matrix });
  }

  private get size(): number {
    return Number(/([\d.]+)px/.exec(this.font)?.[1] ?? 10);
  }

  private colour(style: string): { hex: string; alpha: number } {
    const colour = colord(style);
    return { hex: colour.alpha(1).toHex(), alpha: colour.alpha() * this.globalAlpha };
  }
}

/** The closed outline of a line, whether it ends where it begins or not. */
function ringThrough(line: readonly Point[]): number[] {
  const [first, last] = [line[0]!, line.at(-1)!];
  const isClosed = last[0] === first[0] && last[1] === first[1];
  return straightRing(isClosed ? line.slice(0, -1) : line).map(rounded);
}
