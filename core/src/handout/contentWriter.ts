import { strToU8, Zlib } from 'fflate';
import type { Matrix } from '../geometry/matrix.js';
import { fewerCurves } from '../paint/fewerCurves.js';
import type { Path } from '../geometry/path.js';

/** Farthest that a curve may lie from the one on the screen: 8 µm on paper. */
const TOLERANCE = 0.03;
/** Characters that are compressed at a time. */
const PIECE = 1 << 20;

/** What stays set until it is set anew, or the state before is restored. */
interface State {
  [operator: string]: string | undefined;
}

/**
 * A content stream (ISO 32000-1 §7.8.2), compressed as it is written, so that it takes no more memory than its
 * file does, however much ink there is. Operators are those of annex A.
 */
export class ContentWriter {
  private readonly compressed: Uint8Array[] = [];
  private readonly zlib = new Zlib({ level: 6 }, (piece) => this.compressed.push(piece));
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
    for (const [letter, ...numbers] of fewerCurves(path, TOLERANCE)) {
      if (letter === 'M') this.write('m', ...numbers);
      else if (letter === 'L') this.write('l', ...numbers);
      else if (letter === 'C') this.write('c', ...numbers);
      else if (letter === 'Z') this.write('h');
    }
  }

  /** The stream's bytes, to be read by FlateDecode (§7.4.4). Nothing can be written afterwards. */
  finish(): Uint8Array {
    this.compress(true);
    const bytes = new Uint8Array(this.compressed.reduce((sum, { length }) => sum + length, 0));
    let at = 0;
    for (const piece of this.compressed) {
      bytes.set(piece, at);
      at += piece.length;
    }
    return bytes;
  }

  private add(line: string): void {
    this.text.push(line);
    this.length += line.length;
    if (this.length >= PIECE) this.compress(false);
  }

  private compress(last: boolean): void {
    this.zlib.push(strToU8(this.text.map((line) => `${line}\n`).join(''), true), last);
    this.text = [];
    this.length = 0;
  }
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
