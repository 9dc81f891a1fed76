import { zlibSync } from 'fflate';
import { parseHex } from '../colour/contrast.js';
import type { Matrix } from '../geometry/matrix.js';
import { fewerCurves } from '../paint/fewerCurves.js';
import type { Path } from '../geometry/path.js';
import { AsciiWriter } from './ink/asciiWriter.js';
import { fillInk, inTenths, TOLERANCE } from './ink/fillInk.js';

/** Of curves only cubic ones are left. */
const PATH_OPERATORS = { M: 'm\n', L: 'l\n', Q: '', C: 'c\n', Z: 'h\n' };

/** What stays set until it is set anew, or the state before is restored. */
interface State {
  [operator: string]: number | string | undefined;
}

/** A content stream (ISO 32000-1 §7.8.2), as bytes while it is written. Operators are those of annex A. */
export class ContentWriter {
  private readonly content = new AsciiWriter();
  private state: State = {};
  private readonly states: State[] = [];

  /** Adds an operator after its operands. */
  write(operator: string, ...operands: (number | string)[]): void {
    const { content } = this;
    for (const operand of operands) {
      content.text(typeof operand === 'number' ? short(operand) : operand);
      content.text(' ');
    }
    content.text(operator);
    content.text('\n');
  }

  /** As `write`, for what stays set; left out where it is already. */
  set(operator: string, operands: number | string): void {
    if (this.state[operator] === operands) return;
    this.state[operator] = operands;
    this.write(operator, operands);
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

  /**
   * Path construction operators (§8.5.2), places to a tenth of a page unit, 26 µm: finer than a printer's dot. PDF has
   * cubic curves only.
   */
  path(path: Path): void {
    const { content } = this;
    for (const step of fewerCurves(path, TOLERANCE)) {
      for (let i = 1; i < step.length; i++) content.tenths(inTenths(step[i] as number));
      content.text(PATH_OPERATORS[step[0]]);
    }
  }

  /** Fills a path. */
  fill(path: Path, operator: 'f' | 'f*'): void {
    this.path(path);
    this.write(operator);
  }

  /** Fills the smooth ring of ink's corners, as `fillInk` does. */
  ink(ring: readonly (readonly number[])[]): void {
    fillInk(this.content, ring);
  }

  /** Adds operators that were written elsewhere, and that leave the state of the graphics as it was. */
  written(operators: Uint8Array): void {
    this.content.bytesOf(operators);
  }

  /** All that was written; good until more is. */
  bytes(): Uint8Array {
    return this.content.bytes();
  }

  /** All that was written, compressed, to be read by FlateDecode (§7.4.4). */
  finish(): Uint8Array {
    return zlibSync(this.bytes());
  }
}

/** The operands that set a colour (§8.6.8). */
export function colourOperands(hex: string): string {
  return parseHex(hex).map(short).join(' ');
}

/** A place to a hundredth of a page unit, 3 µm. */
export function short(value: number): string {
  return decimal(value, 2);
}

/** A number as PDF takes it, without an exponent (§7.3.3). */
function decimal(value: number, digits: number): string {
  const factor = 10 ** digits;
  const text = String(Math.round(value * factor) / factor);
  return text.includes('e') ? value.toFixed(digits) : text;
}
