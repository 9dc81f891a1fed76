import { strToU8, zlibSync } from 'fflate';
import type { Matrix } from '../geometry/matrix.js';
import { curvesOfRing, fewerCurves } from '../paint/fewerCurves.js';
import type { Path } from '../geometry/path.js';

/** Farthest that a curve may lie from the one on the screen: 21 µm on paper, a dot of a printer of 1,200 to the inch. */
const TOLERANCE = 0.08;
/** Of curves only cubic ones are left. */
const PATH_OPERATORS = { M: 'm', L: 'l', Q: '', C: 'c', Z: 'h' };
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
    for (const step of fewerCurves(path, TOLERANCE)) {
      let line = '';
      for (let i = 1; i < step.length; i++) line += `${tenth(step[i] as number)} `;
      this.add(line + PATH_OPERATORS[step[0]]);
    }
  }

  /** Fills a path. */
  fill(path: Path, operator: 'f' | 'f*'): void {
    this.path(path);
    this.write(operator);
  }

  /**
   * Fills the smooth ring of ink's corners (`outlineCorners`). It is written in a frame of its own whose unit is a tenth
   * of a page unit and whose origin is where the ink begins, so that its places are short whole numbers: they take half
   * the room of others.
   */
  ink(ring: readonly (readonly number[])[]): void {
    if (ring.length < 3) return;
    const [[x0, y0], [x1, y1]] = ring as unknown as [[number, number], [number, number]];
    const [startX, startY] = [(x0 + x1) / 2, (y0 + y1) / 2];
    const [x, y] = [Math.round(startX), Math.round(startY)];
    const curves = curvesOfRing(ring, TOLERANCE);
    let text = `q\n0.1 0 0 0.1 ${x} ${y} cm\n`;
    text += `${Math.round((startX - x) * 10)} ${Math.round((startY - y) * 10)} m`;
    for (let i = 0; i < curves.length; i += 2) {
      text += i % 6 === 0 ? '\n' : ' ';
      text += `${Math.round((curves[i]! - x) * 10)} ${Math.round((curves[i + 1]! - y) * 10)}`;
      if (i % 6 === 4) text += ' c';
    }
    this.add(`${text}\nh\nf\nQ`);
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
