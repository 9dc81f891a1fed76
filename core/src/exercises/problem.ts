/** Why no exercise comes of what was typed; `values` are for the sentence that says so. */
export type ExerciseProblemCode =
  | 'too-few'
  | 'too-many'
  | 'no-pair'
  | 'no-gap'
  | 'no-picture'
  | 'no-number'
  | 'no-truth'
  | 'no-letters'
  | 'too-long'
  | 'groups'
  | 'no-room'
  | 'no-country'
  | 'columns';

/** Thrown where what was typed cannot become an exercise. */
export class ExerciseProblem extends Error {
  override name = 'ExerciseProblem';

  constructor(
    readonly code: ExerciseProblemCode,
    readonly values: Readonly<Record<string, string | number>> = {},
  ) {
    super(code);
  }
}
