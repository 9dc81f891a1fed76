import type { Range } from './curve.js';

export interface Tick {
  at: number;
  /** As TeX; undefined where it needs no label. */
  label: string;
}

/** Between two ticks, as parts of π. */
const PARTS_OF_PI = [1 / 6, 1 / 4, 1 / 2, 1, 2, 5, 10, 20, 50, 100];
/** From so large or small a number on, ticks are said with a power of ten. */
const POWERS = { most: 1e5, least: 1e-4 };

/** A step of 1, 2 or 5 times a power of ten that makes at most so many parts of a range (Heckbert 1990, "Nice numbers for graph labels"). */
export function niceStep({ from, to }: Range, most: number): number {
  const raw = (to - from) / most;
  const power = 10 ** Math.floor(Math.log10(raw));
  const part = raw / power;
  return (part <= 1 + 1e-9 ? 1 : part <= 2 + 1e-9 ? 2 : part <= 5 + 1e-9 ? 5 : 10) * power;
}

/** The ticks of an axis, at most some `most`; `inPi` counts in parts of π. `comma` parts decimals instead of a point. */
export function ticksOf(range: Range, most: number, { inPi = false, comma = false } = {}): Tick[] {
  const step = inPi ? stepOfPi(range, most) : niceStep(range, most);
  const ticks: Tick[] = [];
  for (let n = Math.ceil(range.from / step - 1e-9); n * step <= range.to + step * 1e-9; n++) {
    const at = n === 0 ? 0 : n * step;
    ticks.push({ at, label: inPi ? piTex(n, step / Math.PI) : numberTex(at, step, comma) });
  }
  return ticks;
}

function stepOfPi({ from, to }: Range, most: number): number {
  const parts = PARTS_OF_PI.find((part) => (to - from) / (part * Math.PI) <= most);
  return Math.PI * (parts ?? niceStep({ from: 0, to: (to - from) / Math.PI }, most));
}

/** A number as TeX with as many decimals as a step of that size needs. */
export function numberTex(value: number, step: number, comma: boolean): string {
  const isPlain = Math.abs(value) < POWERS.most && (value === 0 || step >= POWERS.least);
  if (!isPlain) return powerTex(value, comma);
  const decimals = Math.max(0, Math.min(8, -Math.floor(Math.log10(step) + 1e-9)));
  return withComma(value.toFixed(decimals), comma);
}

function powerTex(value: number, comma: boolean): string {
  const [digits, exponent] = value.toExponential(2).split('e') as [string, string];
  const plain = String(Number(digits));
  const power = `10^{${Number(exponent)}}`;
  if (plain === '1') return power;
  return plain === '-1' ? `-${power}` : `${withComma(plain, comma)}\\cdot ${power}`;
}

const withComma = (text: string, comma: boolean) => (comma ? text.replace('.', '{,}') : text);

/** n times a part of π, in lowest terms. */
function piTex(n: number, part: number): string {
  if (n === 0) return '0';
  const under = part < 1 ? Math.round(1 / part) : 1;
  const over = part < 1 ? n : n * Math.round(part);
  const common = commonDivisor(Math.abs(over), under);
  const [p, q] = [Math.abs(over) / common, under / common];
  const pi = p === 1 ? '\\pi' : `${p}\\pi`;
  return `${over < 0 ? '-' : ''}${q === 1 ? pi : `\\frac{${pi}}{${q}}`}`;
}

function commonDivisor(a: number, b: number): number {
  return b === 0 ? a : commonDivisor(b, a % b);
}
