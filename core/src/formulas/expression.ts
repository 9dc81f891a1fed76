import { ExpressionError } from './faults.js';
import type { Term, Terms } from './terms.js';

/** A term of mathematics, as a tree of what is done with what. */
export type Expression =
  /** `value` where it was computed and `text` is only near it. */
  | { is: 'number'; text: string; value?: number }
  | { is: 'letter'; name: string }
  | { is: 'brackets'; of: Expression }
  | { is: 'negative'; of: Expression }
  | { is: 'absolute'; of: Expression }
  /** The whole number below, or above. */
  | { is: 'floor'; of: Expression }
  | { is: 'ceil'; of: Expression }
  | { is: 'factorial'; of: Expression }
  | { is: 'percent'; of: Expression }
  | { is: 'degrees'; of: Expression }
  | { is: 'sum'; sign: '+' | '-'; left: Expression; right: Expression }
  | { is: 'product'; sign: 'cdot' | 'times' | ''; left: Expression; right: Expression }
  | { is: 'quotient'; sign: 'fraction' | 'div' | ':' | '/'; left: Expression; right: Expression }
  /** A whole number and a fraction, as three and a half. */
  | { is: 'mixed'; left: Expression; right: Expression }
  | { is: 'power'; base: Expression; exponent: Expression }
  | { is: 'root'; of: Expression; degree: Expression | undefined }
  /** A function; `base` is that of a logarithm. */
  | { is: 'call'; name: FunctionName; of: Expression; base: Expression | undefined };

export type FunctionName = (typeof FUNCTIONS)[number];
const FUNCTIONS = ['sin', 'cos', 'tan', 'cot', 'arcsin', 'arccos', 'arctan', 'sinh', 'cosh', 'tanh', 'exp', 'ln', 'log', 'lg'] as const; // prettier-ignore

const TIMES: Readonly<Record<string, 'cdot' | 'times'>> = { cdot: 'cdot', times: 'times', ast: 'cdot' };
const QUOTIENTS: Readonly<Record<string, 'div' | ':' | '/'>> = { div: 'div', ':': ':', '/': '/', colon: ':' };
const CLOSING: Readonly<Record<string, string>> = {
  '(': ')',
  '[': ']',
  '{': '}',
  lfloor: 'rfloor',
  lceil: 'rceil',
};
/** What brackets of a kind do to what they hold, where they do more than hold it. */
const HELD: Readonly<Record<string, 'absolute' | 'floor' | 'ceil'>> = {
  '|': 'absolute',
  lfloor: 'floor',
  lceil: 'ceil',
};
const AFTER: Readonly<Record<string, 'factorial' | 'percent' | 'degrees'>> = {
  '!': 'factorial',
  percent: 'percent',
  degree: 'degrees',
};

/** A formula as one expression; what stands beside each other is multiplied. Throws an `ExpressionError`. */
export function expressionOf(terms: Terms): Expression {
  const reader = new Reader(terms);
  const expression = reader.sum();
  const rest = reader.next();
  if (rest) throw new ExpressionError(isClosing(rest) ? 'brackets' : 'unknown', nameOf(rest));
  return expression;
}

/** Reads by descending from sums to what is single (recursive descent; Aho, Sethi, Ullman 1986, ch. 4.4). */
class Reader {
  private at = 0;
  /** How many bars of an absolute value are open. */
  private bars = 0;

  constructor(private readonly terms: Terms) {}

  next(): Term | undefined {
    return this.terms[this.at];
  }

  sum(): Expression {
    let left = this.product();
    for (;;) {
      const sign = this.sign();
      if (sign !== '+' && sign !== '-') return left;
      this.at += 1;
      left = { is: 'sum', sign, left, right: this.product() };
    }
  }

  private product(): Expression {
    let left = this.signed();
    for (;;) {
      const sign = this.sign();
      if (sign !== undefined && sign in TIMES) {
        this.at += 1;
        left = { is: 'product', sign: TIMES[sign]!, left, right: this.signed() };
      } else if (sign !== undefined && sign in QUOTIENTS) {
        this.at += 1;
        left = { is: 'quotient', sign: QUOTIENTS[sign]!, left, right: this.signed() };
      } else if (this.begins()) left = this.beside(left);
      else return left;
    }
  }

  /** What follows without a sign: a factor, or the fraction of a mixed number. */
  private beside(left: Expression): Expression {
    const isWhole = left.is === 'number' && !left.text.includes('.');
    const right = this.single();
    if (isWhole && isOfNumbers(right)) return { is: 'mixed', left, right };
    return { is: 'product', sign: '', left, right };
  }

  private signed(): Expression {
    const sign = this.sign();
    if (sign !== '-' && sign !== '+') return this.single();
    this.at += 1;
    const of = this.signed();
    return sign === '-' ? { is: 'negative', of } : of;
  }

  /** Something single, with the signs after it. */
  private single(): Expression {
    let single = this.alone();
    for (let sign = this.sign(); sign !== undefined && sign in AFTER; sign = this.sign()) {
      this.at += 1;
      single = { is: AFTER[sign]!, of: single };
    }
    return single;
  }

  private alone(): Expression {
    const term = this.next();
    if (!term) throw new ExpressionError('ends', '');
    this.at += 1;
    switch (term.is) {
      case 'number':
      case 'letter':
        return term;
      case 'fraction':
        return { is: 'quotient', sign: 'fraction', left: expressionOf(term.over), right: expressionOf(term.under) }; // prettier-ignore
      case 'root':
        return { is: 'root', of: expressionOf(term.of), degree: term.degree && expressionOf(term.degree) };
      case 'group':
        return { is: HELD[term.open] ?? 'brackets', of: expressionOf(term.of) };
      case 'scripts':
        return this.scripts(term);
      case 'call':
        return this.call(term.name, undefined);
      case 'sign':
        return this.bracketed(term);
      default:
        throw new ExpressionError('unknown', nameOf(term));
    }
  }

  private bracketed(term: Term & { is: 'sign' }): Expression {
    const isBar = term.name === '|';
    const closing = isBar ? '|' : CLOSING[term.name];
    if (closing === undefined) throw new ExpressionError('unknown', term.name);
    const bars = this.bars;
    this.bars = isBar ? bars + 1 : 0;
    const of = this.sum();
    this.bars = bars;
    const power = this.close(closing);
    const whole: Expression = { is: HELD[term.name] ?? 'brackets', of };
    return power ? { is: 'power', base: whole, exponent: expressionOf(power) } : whole;
  }

  /** Passes a closing bracket, which carries the power of all that it closes. */
  private close(closing: string): Terms | undefined {
    const term = this.next();
    const isScripted = term?.is === 'scripts' && isSign(term.base[0], closing);
    if (!isScripted && !isSign(term, closing)) throw new ExpressionError('brackets', closing);
    this.at += 1;
    return isScripted ? term.sup : undefined;
  }

  private scripts({ base, sup, sub }: Term & { is: 'scripts' }): Expression {
    const [only] = base;
    if (only?.is === 'call') {
      const call = this.call(only.name, sub && expressionOf(sub));
      return sup ? { is: 'power', base: call, exponent: expressionOf(sup) } : call;
    }
    const whole: Expression =
      sub && only?.is === 'letter'
        ? { is: 'letter', name: `${only.name}_${sub.map(nameOf).join('')}` }
        : expressionOf(base);
    return sup ? { is: 'power', base: whole, exponent: expressionOf(sup) } : whole;
  }

  /** A function of what stands in brackets after it, else of the factors up to the next function or sign. */
  private call(name: string, base: Expression | undefined): Expression {
    const known = FUNCTIONS.find((each) => each === name);
    if (!known) throw new ExpressionError('unknown', name);
    const term = this.next();
    const isBracketed = term?.is === 'group' || (term?.is === 'sign' && term.name in CLOSING);
    let of = isBracketed ? this.single() : this.signed();
    for (let next = this.next(); !isBracketed && this.begins() && !isCall(next); next = this.next())
      of = { is: 'product', sign: '', left: of, right: this.single() };
    return { is: 'call', name: known, of: of.is === 'brackets' ? of.of : of, base };
  }

  private sign(): string | undefined {
    const term = this.next();
    return term?.is === 'sign' ? term.name : undefined;
  }

  /** Whether something begins here that can be a factor. */
  private begins(): boolean {
    const term = this.next();
    if (!term) return false;
    if (term.is === 'sign') return term.name in CLOSING || (term.name === '|' && this.bars === 0);
    return !(term.is === 'scripts' && isClosing(term.base[0])) && term.is !== 'words' && term.is !== 'rows';
  }
}

function isOfNumbers(expression: Expression): boolean {
  return (
    expression.is === 'quotient' &&
    expression.sign === 'fraction' &&
    [expression.left, expression.right].every((part) => part.is === 'number')
  );
}

const isSign = (term: Term | undefined, name: string) => term?.is === 'sign' && term.name === name;
const isClosing = (term: Term | undefined) =>
  term?.is === 'sign' && [')', ']', '}', '|', 'rfloor', 'rceil'].includes(term.name);
const isCall = (term: Term | undefined) =>
  term?.is === 'call' || (term?.is === 'scripts' && term.base[0]?.is === 'call');

function nameOf(term: Term): string {
  if ('name' in term) return term.name;
  return 'text' in term ? term.text : term.is;
}
