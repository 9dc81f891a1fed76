import { HttpException } from '@nestjs/common';
import type { ProblemReply } from '@doodla/core';

/** An answer that refuses a request with a sentence for its reader and a code for the program. */
export class Problem extends HttpException {
  constructor(
    status: number,
    readonly code: string,
    message: string,
    /** What the sentence has put in, for those who say it in another language. */
    readonly values?: ProblemReply['values'],
  ) {
    super({ code, message, ...(values && { values }) }, status);
  }
}

export const notFound = (what: string) =>
  new Problem(404, 'not-found', `${what} is not here any more. Go back and look again.`, { what });

export const signInFirst = () => new Problem(401, 'sign-in', 'Please sign in first.');

/** A lesson goes from one process to another. */
export function moving(): Problem {
  return new Problem(
    503,
    'moving',
    'This is just being moved to another server. Please try again in a moment.',
  );
}
