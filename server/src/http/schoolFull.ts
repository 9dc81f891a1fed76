import { Problem } from './problem.js';

/** Nothing more comes in for a school that has used up what the installation gives it. */
export function schoolFull(): Problem {
  return new Problem(
    507,
    'school-full',
    'Your school has no more room for files. Please delete what is not needed any more, or ask whoever looks after the school.',
  );
}
