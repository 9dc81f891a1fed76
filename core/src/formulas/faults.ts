/** What is wrong with a formula: nothing is in it, its TeX cannot be read or is too long, its steps are too long together, or a sign of it is in no font of formulas. */
export type FormulaFault = 'empty' | 'unreadable' | 'tooLong' | 'tooManySteps' | 'noSign';

/** A formula that cannot be typeset; `detail` is the place or the sign. */
export class FormulaError extends Error {
  constructor(
    readonly fault: FormulaFault,
    readonly detail: string,
  ) {
    super(`${fault}: ${detail}`);
    this.name = 'FormulaError';
  }
}

/** What keeps a formula from being one expression; `detail` is the sign where it ends. */
export class ExpressionError extends Error {
  constructor(
    readonly fault: 'ends' | 'unknown' | 'brackets',
    readonly detail: string,
  ) {
    super(`${fault}: ${detail}`);
    this.name = 'ExpressionError';
  }
}

/** Why something has no value: it divides by 0, is of no real number, holds a letter, or is too large. */
export class ValueError extends Error {
  constructor(
    readonly fault: 'zero' | 'notReal' | 'letter' | 'tooLarge',
    readonly detail = '',
  ) {
    super(`${fault}: ${detail}`);
    this.name = 'ValueError';
  }
}

/** An equation, or another formula that is no calculation. */
export class NoCalculationError extends Error {
  constructor() {
    super('no calculation');
    this.name = 'NoCalculationError';
  }
}
