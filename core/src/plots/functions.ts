import type { Expression, FunctionName } from '../formulas/expression.js';
import { ValueError } from '../formulas/faults.js';

/** A function of one number; NaN where it has no real value. */
export type RealFunction = (x: number) => number;
/** Values of letters, by name. */
export type Letters = Readonly<Record<string, number>>;

const CALLS: Readonly<Record<FunctionName, (x: number) => number>> = {
  sin: Math.sin,
  cos: Math.cos,
  tan: Math.tan,
  cot: (x) => 1 / Math.tan(x),
  arcsin: Math.asin,
  arccos: Math.acos,
  arctan: Math.atan,
  sinh: Math.sinh,
  cosh: Math.cosh,
  tanh: Math.tanh,
  exp: Math.exp,
  ln: Math.log,
  log: Math.log10,
  lg: Math.log10,
};
const CONSTANTS: Letters = { pi: Math.PI, e: Math.E };
/** Of larger numbers there is no factorial in floating point (ECMA-262: no number over 1.8e308). */
const MOST_FACTORIAL = 170;

/**
 * An expression as a function of a letter that is computed fast; other letters have their values. Throws a `ValueError` where one
 * of them has none.
 */
export function functionOf(expression: Expression, letter: string, letters: Letters = {}): RealFunction {
  const of = (part: Expression) => functionOf(part, letter, letters);
  switch (expression.is) {
    case 'number':
      return always(expression.value ?? Number(expression.text));
    case 'letter':
      if (expression.name === letter) return (x) => x;
      return always(valueOfLetter(expression.name, letters));
    case 'brackets':
      return of(expression.of);
    case 'negative':
      return after(of(expression.of), (value) => -value);
    case 'absolute':
      return after(of(expression.of), Math.abs);
    case 'floor':
    case 'ceil':
      return after(of(expression.of), Math[expression.is]);
    case 'percent':
      return after(of(expression.of), (value) => value / 100);
    case 'degrees':
      return after(of(expression.of), (value) => (value * Math.PI) / 180);
    case 'factorial':
      return after(of(expression.of), factorial);
    case 'root':
      return both(of(expression.of), expression.degree ? of(expression.degree) : always(2), root);
    case 'power':
      return both(of(expression.base), of(expression.exponent), power);
    case 'call':
      return called(expression, of);
    default:
      return both(of(expression.left), of(expression.right), OPERATIONS[operationOf(expression)]);
  }
}

/** Names of the letters of an expression, without constants. */
export function lettersIn(expression: Expression): Set<string> {
  if (expression.is === 'letter') return new Set(expression.name in CONSTANTS ? [] : [expression.name]);
  const parts = Object.values(expression).filter((part): part is Expression => typeof part === 'object');
  return new Set(parts.flatMap((part) => [...lettersIn(part)]));
}

const OPERATIONS = {
  add: (a: number, b: number) => a + b,
  subtract: (a: number, b: number) => a - b,
  multiply: (a: number, b: number) => a * b,
  divide: (a: number, b: number) => a / b,
};

type Paired = Extract<Expression, { left: Expression }>;

function operationOf(expression: Paired): keyof typeof OPERATIONS {
  switch (expression.is) {
    case 'sum':
      return expression.sign === '+' ? 'add' : 'subtract';
    case 'mixed':
      return 'add';
    case 'product':
      return 'multiply';
    case 'quotient':
      return 'divide';
  }
}

function called(
  { name, of, base }: Extract<Expression, { is: 'call' }>,
  compiled: (part: Expression) => RealFunction,
): RealFunction {
  if (!base) return after(compiled(of), CALLS[name]);
  return both(compiled(of), compiled(base), (value, to) => Math.log(value) / Math.log(to));
}

function valueOfLetter(name: string, letters: Letters): number {
  const value = letters[name] ?? CONSTANTS[name];
  if (value === undefined) throw new ValueError('letter', name);
  return value;
}

const always = (value: number) => () => value;

const after =
  (inner: RealFunction, outer: (value: number) => number): RealFunction =>
  (x) =>
    outer(inner(x));

const both =
  (left: RealFunction, right: RealFunction, joined: (a: number, b: number) => number): RealFunction =>
  (x) =>
    joined(left(x), right(x));

function factorial(n: number): number {
  if (!Number.isInteger(n) || n < 0 || n > MOST_FACTORIAL) return NaN;
  let product = 1;
  for (let i = 2; i <= n; i++) product *= i;
  return product;
}

/** A root of an odd degree is there for negative numbers too. */
function root(of: number, degree: number): number {
  if (degree === 2) return Math.sqrt(of);
  if (degree === 3) return Math.cbrt(of);
  if (of < 0 && degree % 2 !== 0 && Number.isInteger(degree)) return -((-of) ** (1 / degree));
  return of ** (1 / degree);
}

/** 0 to the power of 0 is 1 in schools as in ECMA-262. */
const power = (base: number, exponent: number) => base ** exponent;
