import type { FactoryFunctionMap, Fraction } from 'mathjs';
import {
  absDependencies,
  acosDependencies,
  addDependencies,
  asinDependencies,
  atanDependencies,
  cosDependencies,
  coshDependencies,
  cotDependencies,
  create,
  divideDependencies,
  expDependencies,
  factorialDependencies,
  fractionDependencies,
  isIntegerDependencies,
  logDependencies,
  multiplyDependencies,
  nthRootDependencies,
  numberDependencies,
  powDependencies,
  sinDependencies,
  sinhDependencies,
  subtractDependencies,
  tanDependencies,
  tanhDependencies,
  unaryMinusDependencies,
} from 'mathjs';
import type { Expression, FunctionName } from './expression.js';
import { ValueError } from './faults.js';

/** Only these parts of mathjs come along. */
const PARTS: readonly (FactoryFunctionMap | undefined)[] = [
  absDependencies,
  acosDependencies,
  addDependencies,
  asinDependencies,
  atanDependencies,
  cosDependencies,
  coshDependencies,
  cotDependencies,
  divideDependencies,
  expDependencies,
  factorialDependencies,
  fractionDependencies,
  isIntegerDependencies,
  logDependencies,
  multiplyDependencies,
  nthRootDependencies,
  numberDependencies,
  powDependencies,
  sinDependencies,
  sinhDependencies,
  subtractDependencies,
  tanDependencies,
  tanhDependencies,
  unaryMinusDependencies,
];
const math = create(Object.assign({}, ...PARTS) as FactoryFunctionMap);

/** An exact fraction, or a decimal that is as near as it can be. */
export type Value = Fraction | number;

/** Of larger numbers no factorial and no exact power is made. */
const MOST = { factorial: 170, exponent: 64 };
const CONSTANTS: Readonly<Record<string, number>> = { pi: Math.PI, e: Math.E };

const OF_NUMBERS: Readonly<Record<FunctionName, (x: number) => unknown>> = {
  sin: (x) => math.sin(x),
  cos: (x) => math.cos(x),
  tan: (x) => math.tan(x),
  cot: (x) => math.cot(x),
  arcsin: (x) => math.asin(x),
  arccos: (x) => math.acos(x),
  arctan: (x) => math.atan(x),
  sinh: (x) => math.sinh(x),
  cosh: (x) => math.cosh(x),
  tanh: (x) => math.tanh(x),
  exp: (x) => math.exp(x),
  ln: (x) => math.log(x),
  log: (x) => math.log(x, 10),
  lg: (x) => math.log(x, 10),
};

export const isExact = (value: Value): value is Fraction => typeof value !== 'number';

/** The value of an expression; `letters` has those of letters. Exact as long as only fractions come of it. Throws a `ValueError`. */
export function valueOf(expression: Expression, letters: Readonly<Record<string, Value>> = {}): Value {
  const of = (part: Expression) => valueOf(part, letters);
  switch (expression.is) {
    case 'number':
      return expression.value ?? math.fraction(expression.text);
    case 'letter': {
      const value = letters[expression.name] ?? CONSTANTS[expression.name];
      if (value === undefined) throw new ValueError('letter', expression.name);
      return value;
    }
    case 'brackets':
      return of(expression.of);
    case 'negative':
      return result(math.unaryMinus(of(expression.of)));
    case 'absolute':
      return result(math.abs(of(expression.of)));
    case 'floor':
    case 'ceil': {
      const value = of(expression.of);
      return isExact(value) ? value[expression.is]() : Math[expression.is](value);
    }
    case 'percent':
      return ofBoth('divide', of(expression.of), math.fraction(100));
    case 'degrees':
      return (math.number(of(expression.of)) * Math.PI) / 180;
    case 'factorial':
      return factorial(of(expression.of));
    case 'mixed':
      return ofBoth('add', of(expression.left), of(expression.right));
    case 'sum':
      return ofBoth(expression.sign === '+' ? 'add' : 'subtract', of(expression.left), of(expression.right));
    case 'product':
      return ofBoth('multiply', of(expression.left), of(expression.right));
    case 'quotient':
      return quotient(of(expression.left), of(expression.right));
    case 'power':
      return power(of(expression.base), of(expression.exponent));
    case 'root':
      return root(of(expression.of), expression.degree ? of(expression.degree) : math.fraction(2));
    case 'call': {
      const x = math.number(of(expression.of));
      const base = expression.base && math.number(of(expression.base));
      return result(base === undefined ? OF_NUMBERS[expression.name](x) : math.log(x, base));
    }
  }
}

/** Exact where both are. */
function ofBoth(what: 'add' | 'divide' | 'multiply' | 'subtract', a: Value, b: Value): Value {
  return result(isExact(a) && isExact(b) ? math[what](a, b) : math[what](a.valueOf(), b.valueOf()));
}

function quotient(over: Value, under: Value): Value {
  if (math.number(under) === 0) throw new ValueError('zero');
  return ofBoth('divide', over, under);
}

function power(base: Value, exponent: Value): Value {
  const n = math.number(exponent);
  if (math.number(base) === 0 && n < 0) throw new ValueError('zero');
  const isWhole = isExact(exponent) && Number.isInteger(n) && Math.abs(n) <= MOST.exponent;
  return result(isWhole && isExact(base) ? base.pow(exponent) : math.pow(math.number(base), n));
}

/** A root that comes out even stays exact. */
function root(of: Value, degree: Value): Value {
  const n = math.number(degree);
  if (n === 0) throw new ValueError('zero');
  if (math.number(of) < 0 && n % 2 !== 1) throw new ValueError('notReal');
  const near = math.nthRoot(math.number(of), n) as number;
  if (!isExact(of) || !Number.isInteger(n)) return result(near);
  const exact = math.fraction(Number(near.toFixed(12)));
  return Number(exact.d) < 1e6 && n <= MOST.exponent && exact.pow(n)?.equals(of) ? exact : result(near);
}

function factorial(of: Value): Value {
  const n = math.number(of);
  if (!Number.isInteger(n) || n < 0) throw new ValueError('notReal');
  if (n > MOST.factorial) throw new ValueError('tooLarge');
  return math.fraction(math.factorial(n));
}

/** A value that there is: real and finite. */
function result(value: unknown): Value {
  const near = typeof value === 'number' ? value : isFraction(value) ? value.valueOf() : NaN;
  if (Number.isNaN(near)) throw new ValueError('notReal');
  if (!Number.isFinite(near)) throw new ValueError('tooLarge');
  return value as Value;
}

function isFraction(value: unknown): value is Fraction {
  return typeof value === 'object' && value !== null && 'd' in value && 'n' in value;
}
