import { strToU8, zlibSync } from 'fflate';
import type { Matrix } from '../geometry/matrix.js';
import { fewerCurves } from '../paint/fewerCurves.js';
import type { Path, PathStep } from '../geometry/path.js';

/** Farthest that a curve may lie from the one on the screen: 21 µm on paper, a dot of a printer of 1,200 to the inch. */
const TOLERANCE = 0.08;
/** Of curves only cubic ones are left. */
const PATH_OPERATORS = { M: 'm', L: 'l', Q: '', C: 'c', Z: 'h' };
/** Paths of fewer steps are shorter without a frame. */
const WORTH_A_FRAME = 6;
/** Characters that are turned into bytes at a time. */
const PIECE = 1 << 20;

/** What stays set until it is set anew, or the state before is restored. */
interface State {
  [operator: string]: string | undefined;
}

/** A content stream (ISO 32000-1 §7.8.2), as bytes while it is written. Operators are those of annex A. */
export class ContentWriter {
  private readonly pieces: Uint8Array[] = [];
  private text: string[] = [];
  private length = 0;
  private state: State = {};
  private readonly states: State[] = [];

  /** Adds an operator after its operands. */
  write(operator: string, ...operands: (number | string)[]): void {
    const line = [...operands.map((value) => (typeof value === 'number' ? short(value) : value)), operator];
    this.add(line.join(' '));
  }

  /** As `write`, for what stays set; left out where it is already. */
  set(operator: string, ...operands: (number | string)[]): void {
    const value = operands.join(' ');
    if (this.state[operator] === value) return;
    this.state[operator] = value;
    this.write(operator, ...operands);
  }

  save(): void {
    this.states.push({ ...this.state });
    this.write('q');
  }

  restore(): void {
    this.state = this.states.pop() ?? {};
    this.write('Q');
  }

  /** Maps what follows; finer than places are written, since a matrix enlarges what it is off. */
  transform(matrix: Matrix): void {
    this.write('cm', ...matrix.map((value) => decimal(value, 6)));
  }

  /** Path construction operators (§8.5.2). PDF has cubic curves only. */
  path(path: Path): void {
    this.steps(fewerCurves(path, TOLERANCE), tenth);
  }

  /** `place` makes text of the n-th operand of a step, from 1: an x where that is odd. */
  private steps(steps: readonly PathStep[], place: (value: number, n: number) => string): void {
    for (const step of steps) {
      let line = '';
      for (let i = 1; i < step.length; i++) line += `${place(step[i] as number, i)} `;
      this.add(line + PATH_OPERATORS[step[0]]);
    }
  }

  /**
   * Fills a path. One of ink is written in a frame of its own whose unit is a tenth of a page unit and whose origin is
   * where the ink begins, so that its places are short whole numbers: they take half the room of others.
   */
  fill(path: Path, operator: 'f' | 'f*'): void {
    const steps = fewerCurves(path, TOLERANCE);
    const [start] = steps;
    if (steps.length < WORTH_A_FRAME || start?.[0] !== 'M') {
      this.steps(steps, tenth);
      return this.write(operator);
    }
    const [x, y] = [Math.round(start[1]), Math.round(start[2])];
    this.write('q');
    this.write('cm', 0.1, 0, 0, 0.1, x, y);
    this.steps(steps, (value, i) => String(Math.round((value - (i % 2 === 1 ? x : y)) * 10)));
    this.write(operator);
    this.write('Q');
  }

  /** All that was written. */
  bytes(): Uint8Array {
    this.flush();
    const bytes = new Uint8Array(this.pieces.reduce((sum, { length }) => sum + length, 0));
    let at = 0;
    for (const piece of this.pieces) {
      bytes.set(piece, at);
      at += piece.length;
    }
    return bytes;
  }

  /** All that was written, compressed, to be read by FlateDecode (§7.4.4). */
  finish(): Uint8Array {
    return zlibSync(this.bytes());
  }

  private add(line: string): void {
    this.text.push(line);
    this.length += line.length;
    if (this.length >= PIECE) this.flush();
  }

  private flush(): void {
    this.pieces.push(strToU8(this.text.map((line) => `${line}\n`).join(''), true));
    this.text = [];
    this.length = 0;
  }
}

/**
 * A place of a line or curve to a tenth of a page unit, 26 µm: finer than a printer's dot. Whole numbers become text
 * several times as fast as others.
 */
function tenth(value: number): string {
  const tenths = Math.round(Math.abs(value) * 10);
  const sign = value < 0 && tenths > 0 ? '-' : '';
  const rest = tenths % 10;
  return rest === 0 ? `${sign}${tenths / 10}` : `${sign}${(tenths - rest) / 10}.${rest}`;
}

/** A place to a hundredth of a page unit, 3 µm. */
function short(value: number): string {
  return decimal(value, 2);
}

/** A number as PDF takes it, without an exponent (§7.3.3). */
function decimal(value: number, digits: number): string {
  const factor = 10 ** digits;
  const text = String(Math.round(value * factor) / factor);
  return text.includes('e') ? value.toFixed(digits) : text;
}
