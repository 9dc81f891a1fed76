import type { Expression } from './expression.js';
import { expressionOf } from './expression.js';
import { NoCalculationError } from './faults.js';
import { expressionTex } from './expressionTex.js';
import type { Terms } from './terms.js';
import { termsOf } from './terms.js';
import type { Value } from './values.js';
import { isExact, valueOf } from './values.js';

/** A line of a calculation after the first one, as TeX, and whether it is rounded. */
export interface Step {
  tex: string;
  isRounded: boolean;
}

/** A calculation of more operations is worked out in one go. */
const MOST_STEPS = 24;
/** Decimals of what cannot be said exactly. */
const DECIMALS = 4;
/** Decimals up to which a number is said as a decimal rather than a fraction. */
const EXACT_DECIMALS = 6;

/**
 * Works a calculation out as it is done by hand: what stands deepest in brackets first, then from the left; the
 * result last. Throws a `FormulaError`, an
 * `ExpressionError`, a `ValueError` or a `NoCalculationError`.
 */
export function workOut(tex: string): readonly Step[] {
  const terms = leftOf(termsOf(tex));
  const whole = expressionOf(terms);
  // What has no value has no steps either.
  valueOf(whole);
  const look = { comma: /\d(\{,\}|,)\d/.test(tex), inFractions: hasFraction(whole) };
  return stepsOf(whole, look);
}

interface Look {
  comma: boolean;
  inFractions: boolean;
}

function stepsOf(whole: Expression, look: Look): Step[] {
  const steps: Step[] = [];
  let [now, said] = [whole, expressionTex(whole, look.comma)];
  for (let count = 0; !isPlain(now); count++) {
    const next = count < MOST_STEPS ? readyIn(now) : { of: now, depth: 0 };
    now = replaced(now, next.of, valueExpression(tidy(valueOf(next.of)), look));
    const tex = expressionTex(now, look.comma);
    if (tex !== said) steps.push({ tex, isRounded: isRounded(now) });
    said = tex;
  }
  const value = tidy(valueOf(now));
  if (isExact(value) && now.is !== 'number' && !isWhole(value)) steps.push(asDecimal(value.valueOf(), look));
  return steps;
}

function asDecimal(value: number, { comma }: Look): Step {
  return { tex: decimal(value, DECIMALS, comma), isRounded: Number(value.toFixed(DECIMALS)) !== value };
}

/** What stands before an equals sign with nothing or a question mark after it. */
function leftOf(terms: Terms): Terms {
  const at = terms.findIndex((term) => term.is === 'sign' && ['=', '<', '>', 'leq', 'geq', 'neq', 'approx'].includes(term.name)); // prettier-ignore
  if (at < 0) return terms;
  const rest = terms.slice(at + 1).filter((term) => !(term.is === 'sign' && term.name === '?'));
  const [relation] = terms.slice(at);
  if (rest.length > 0 || (relation as { name: string }).name !== '=') throw new NoCalculationError();
  return terms.slice(0, at);
}

const childrenOf = (expression: Expression): Expression[] =>
  Object.values(expression).filter((part): part is Expression => typeof part === 'object');

function hasFraction(expression: Expression): boolean {
  const own = expression.is === 'mixed' || (expression.is === 'quotient' && expression.sign === 'fraction');
  return own || childrenOf(expression).some(hasFraction);
}

function isRounded(expression: Expression): boolean {
  return (expression.is === 'number' && expression.value !== undefined) || childrenOf(expression).some(isRounded); // prettier-ignore
}

/** Whether there is nothing left to do: a number, a fraction in its lowest terms, or one with a minus. */
function isPlain(expression: Expression): boolean {
  // An angle waits for the function that it is of.
  if (expression.is === 'degrees') return expression.of.is === 'number';
  if (expression.is === 'negative') return expression.of.is !== 'negative' && isPlain(expression.of);
  if (expression.is === 'quotient' && expression.sign === 'fraction') {
    const { left, right } = expression;
    if (left.is !== 'number' || right.is !== 'number' || /[.]/.test(left.text + right.text)) return false;
    const value = valueOf(expression);
    return isExact(value) && right.text !== '1' && String(value.d) === right.text;
  }
  return expression.is === 'number';
}

/** The operation whose turn it is: all of its numbers are there, and it lies deepest. */
function readyIn(expression: Expression, depth = 0): { of: Expression; depth: number } {
  const parts = childrenOf(expression).filter((part) => !isPlain(part));
  if (parts.length === 0) return { of: expression, depth };
  const isDeeper = expression.is === 'brackets' || expression.is === 'absolute' || expression.is === 'call';
  return parts
    .map((part) => readyIn(part, depth + (isDeeper ? 1 : 0)))
    .reduce((first, next) => (next.depth > first.depth ? next : first));
}

function replaced(whole: Expression, old: Expression, by: Expression): Expression {
  if (whole === old) return by;
  const parts = Object.entries(whole).map(([key, part]: [string, unknown]) => [
    key,
    typeof part === 'object' ? replaced(part as Expression, old, by) : part,
  ]);
  const now = Object.fromEntries(parts) as Expression;
  // Brackets round a number have done their work.
  return now.is === 'brackets' && isPlain(now.of) ? now.of : now;
}

/** What is a fraction but for the last places of its computation, is that fraction. */
function tidy(value: Value): Value {
  if (isExact(value)) return value;
  const near = valueOf({ is: 'number', text: value.toFixed(12).replace(/\.?0+$/, '') });
  return isExact(near) && Number(near.d) <= 1000 && Math.abs(value) < 1e9 ? near : value;
}

function valueExpression(value: Value, { comma, inFractions }: Look): Expression {
  const near = value.valueOf();
  if (near < 0) {
    const of = valueExpression(isExact(value) ? value.neg() : -value, { comma, inFractions });
    return { is: 'negative', of };
  }
  if (!isExact(value)) return { is: 'number', text: decimal(near, DECIMALS, false), value };
  const text = String(near);
  const isDecimal = !text.includes('e') && (text.split('.')[1]?.length ?? 0) <= EXACT_DECIMALS;
  if (isWhole(value) && isDecimal) return { is: 'number', text };
  if (isDecimal && !inFractions) return { is: 'number', text };
  if (Number(value.d) > 1e6 || Number(value.n) > 1e12) return { is: 'number', text: decimal(near, DECIMALS, false), value: near }; // prettier-ignore
  const [left, right] = [value.n, value.d].map((part) => ({ is: 'number' as const, text: String(part) }));
  return { is: 'quotient', sign: 'fraction', left: left!, right: right! };
}

const isWhole = (value: Value) => Number.isInteger(value.valueOf());

/** A number with at most so many decimals; very large and very small ones with a power of ten. */
function decimal(value: number, decimals: number, comma: boolean): string {
  const size = Math.abs(value);
  const isUsual = size === 0 || (size >= 10 ** -decimals && size < 1e12);
  const [digits, exponent] = isUsual ? [value.toFixed(decimals)] : value.toExponential(decimals).split('e');
  const short = digits!.replace(/\.?0+$/, '');
  const text = exponent === undefined ? short : `${short}\\cdot 10^{${Number(exponent)}}`;
  return comma ? text.replace('.', '{,}') : text;
}
