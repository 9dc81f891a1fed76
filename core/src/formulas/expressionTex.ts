import type { Expression } from './expression.js';

/** How strongly an expression holds together; brackets go round what is weaker than its place. */
const STRENGTH = { sum: 1, negative: 2, product: 3, power: 5, single: 6 } as const;

/** An expression as TeX, with brackets where they are needed; `comma` parts decimals instead of a point. */
export function expressionTex(expression: Expression, comma: boolean): string {
  const tex = (part: Expression, least = 0) => {
    const own = expressionTex(part, comma);
    return strengthOf(part) < least ? `\\left(${own}\\right)` : own;
  };
  switch (expression.is) {
    case 'number':
      return expression.text.replace('.', comma ? '{,}' : '.');
    case 'letter':
      return letterTex(expression.name);
    case 'brackets':
      return `\\left(${tex(expression.of)}\\right)`;
    case 'absolute':
      return `\\left|${tex(expression.of)}\\right|`;
    case 'floor':
      return `\\left\\lfloor ${tex(expression.of)}\\right\\rfloor `;
    case 'ceil':
      return `\\left\\lceil ${tex(expression.of)}\\right\\rceil `;
    case 'negative':
      return `-${tex(expression.of, STRENGTH.product)}`;
    case 'factorial':
      return `${tex(expression.of, STRENGTH.single)}!`;
    case 'percent':
      return `${tex(expression.of, STRENGTH.single)}\\%`;
    case 'degrees':
      return `${tex(expression.of, STRENGTH.single)}^{\\circ}`;
    case 'mixed':
      return `${tex(expression.left)}\\tfrac{${tex((expression.right as Quotient).left)}}{${tex((expression.right as Quotient).right)}}`;
    case 'sum':
      return `${tex(expression.left)}${expression.sign}${tex(expression.right, STRENGTH.product)}`;
    case 'product': {
      const [left, right] = [tex(expression.left, STRENGTH.negative), tex(expression.right, STRENGTH.power)];
      const sign = expression.sign || (/^[\d.]/.test(right) || right.startsWith('\\frac') ? 'cdot' : '');
      return sign ? `${left}\\${sign} ${right}` : `${left}${right}`;
    }
    case 'quotient': {
      const { sign, left, right } = expression;
      if (sign === 'fraction') return `\\frac{${tex(left)}}{${tex(right)}}`;
      return `${tex(left, STRENGTH.negative)}${sign === 'div' ? '\\div ' : sign}${tex(right, STRENGTH.power)}`;
    }
    case 'power':
      return `${tex(expression.base, STRENGTH.single)}^{${tex(expression.exponent)}}`;
    case 'root':
      return `\\sqrt${expression.degree ? `[${tex(expression.degree)}]` : ''}{${tex(expression.of)}}`;
    case 'call': {
      const base = expression.base ? `_{${tex(expression.base)}}` : '';
      return `\\${expression.name}${base}\\left(${tex(expression.of)}\\right)`;
    }
  }
}

type Quotient = Extract<Expression, { is: 'quotient' }>;

function strengthOf(expression: Expression): number {
  switch (expression.is) {
    case 'sum':
      return STRENGTH.sum;
    case 'negative':
      return STRENGTH.negative;
    case 'product':
    case 'mixed':
      return STRENGTH.product;
    case 'quotient':
    case 'power':
    case 'call':
      // A fraction is drawn as one thing, but a power of it needs brackets.
      return expression.is === 'quotient' && expression.sign !== 'fraction' ? STRENGTH.product : STRENGTH.power; // prettier-ignore
    default:
      return STRENGTH.single;
  }
}

function letterTex(name: string): string {
  const [letter, index] = name.split('_') as [string, string?];
  return `${letter.length > 1 ? `\\${letter} ` : letter}${index === undefined ? '' : `_{${index}}`}`;
}
