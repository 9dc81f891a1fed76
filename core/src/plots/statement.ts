import type { Expression } from '../formulas/expression.js';
import { expressionOf } from '../formulas/expression.js';
import type { Term, Terms } from '../formulas/terms.js';
import { termsOf } from '../formulas/terms.js';
import type { Letters, RealFunction } from './functions.js';
import { functionOf, lettersIn } from './functions.js';

export type Relation = '=' | '<' | '>' | 'leq' | 'geq';

/** What a formula says that can be drawn. */
export type Statement =
  /** y, or a function, is something of x, or is above or below it. */
  | { is: 'height'; relation: Relation; of: readonly Part[] }
  /** x is a number, or is greater or less. */
  | { is: 'place'; relation: Relation; of: Expression };

/** What a function is where a condition holds; everywhere where there is none. */
export interface Part {
  of: Expression;
  when: readonly Comparison[];
}

export interface Comparison {
  left: Expression;
  relation: Relation;
  right: Expression;
}

/** A formula that is none that can be drawn: it says nothing of x, or y is not alone on one side. */
export class NoGraphError extends Error {
  constructor(readonly fault: 'form' | 'twoRelations') {
    super(`no graph: ${fault}`);
    this.name = 'NoGraphError';
  }
}

const TURNED: Readonly<Record<Relation, Relation>> = { '=': '=', '<': '>', '>': '<', leq: 'geq', geq: 'leq' };

/** What a formula says, given as TeX. Throws a `FormulaError`, an `ExpressionError` or a `NoGraphError`. */
export function statementOf(tex: string): Statement {
  const { sides, relations } = sidesOf(termsOf(tex));
  const [left, right] = sides as [Terms, Terms | undefined];
  if (relations.length > 1) throw new NoGraphError('twoRelations');
  if (!right) return { is: 'height', relation: '=', of: partsOf(left) };
  const [relation] = relations as [Relation];
  if (isHeight(left)) return { is: 'height', relation, of: partsOf(right) };
  if (isHeight(right)) return { is: 'height', relation: TURNED[relation], of: partsOf(left) };
  if (isLetter(left, 'x')) return place(relation, right);
  if (isLetter(right, 'x')) return place(TURNED[relation], left);
  throw new NoGraphError('form');
}

/** The letters of a statement that need a value: all but x and y. */
export function freeLetters(statement: Statement): string[] {
  const all =
    statement.is === 'place'
      ? [statement.of]
      : statement.of.flatMap(({ of, when }) => [of, ...when.flatMap(({ left, right }) => [left, right])]);
  const letters = new Set(all.flatMap((expression) => [...lettersIn(expression)]));
  letters.delete('x');
  return [...letters].sort();
}

/** The function of a statement about heights. Throws a `ValueError` where a letter has no value. */
export function heightsOf(parts: readonly Part[], letters: Letters): RealFunction {
  const compiled = parts.map(({ of, when }) => ({
    value: functionOf(of, 'x', letters),
    holds: when.map((comparison) => holding(comparison, letters)),
  }));
  const [only] = compiled;
  if (compiled.length === 1 && only!.holds.length === 0) return only!.value;
  return (x) => compiled.find(({ holds }) => holds.every((isTrue) => isTrue(x)))?.value(x) ?? NaN;
}

function holding({ left, relation, right }: Comparison, letters: Letters): (x: number) => boolean {
  const [a, b] = [functionOf(left, 'x', letters), functionOf(right, 'x', letters)];
  switch (relation) {
    case '=':
      return (x) => a(x) === b(x);
    case '<':
      return (x) => a(x) < b(x);
    case '>':
      return (x) => a(x) > b(x);
    case 'leq':
      return (x) => a(x) <= b(x);
    case 'geq':
      return (x) => a(x) >= b(x);
  }
}

function place(relation: Relation, terms: Terms): Statement {
  const of = expressionOf(terms);
  if (lettersIn(of).has('x') || lettersIn(of).has('y')) throw new NoGraphError('form');
  return { is: 'place', relation, of };
}

/** Whether terms are y, or a function of x by its name, such as f(x). */
function isHeight(terms: Terms): boolean {
  if (isLetter(terms, 'y')) return true;
  const [name, open, x, close, more] = terms;
  if (name?.is !== 'letter' || more) return false;
  if (open?.is === 'group') return !x && isLetter(open.of, 'x');
  return isSign(open, '(') && x?.is === 'letter' && x.name === 'x' && isSign(close, ')');
}

const isSign = (term: Term | undefined, name: string) => term?.is === 'sign' && term.name === name;
const isLetter = ([term, more]: Terms, name: string) => term?.is === 'letter' && term.name === name && !more;

/** What a function is: one expression, or one for each of several conditions. */
function partsOf(terms: Terms): Part[] {
  const [only, more] = terms;
  const rows = only?.is === 'group' && only.open === '{' && !more ? only.of[0] : undefined;
  if (rows?.is !== 'rows') return [{ of: ofXAlone(terms), when: [] }];
  return rows.rows.map(([value = [], condition = []]) => ({
    of: ofXAlone(withoutComma(value)),
    when: conditionOf(condition),
  }));
}

function ofXAlone(terms: Terms): Expression {
  const of = expressionOf(terms);
  if (lettersIn(of).has('y')) throw new NoGraphError('form');
  return of;
}

/** The words of a condition, such as "if" and "otherwise", say nothing of their own. */
function conditionOf(terms: Terms): Comparison[] {
  const { sides, relations } = sidesOf(terms.filter(({ is }) => is !== 'words'));
  if (relations.length === 0) {
    if (sides[0]!.length > 0) throw new NoGraphError('form');
    return [];
  }
  const expressions = sides.map((side) => expressionOf(side));
  return relations.map((relation, i) => ({ left: expressions[i]!, relation, right: expressions[i + 1]! }));
}

const withoutComma = (terms: Terms) => (isSign(terms.at(-1), ',') ? terms.slice(0, -1) : terms);

function sidesOf(terms: Terms): { sides: Terms[]; relations: Relation[] } {
  const sides: Term[][] = [[]];
  const relations: Relation[] = [];
  for (const term of terms) {
    if (term.is === 'sign' && term.name in TURNED) {
      relations.push(term.name as Relation);
      sides.push([]);
    } else sides.at(-1)!.push(term);
  }
  return { sides, relations };
}
