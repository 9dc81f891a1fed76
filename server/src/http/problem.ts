import { HttpException } from '@nestjs/common';

/** An answer that refuses a request with a sentence for its reader and a code for the program. */
export class Problem extends HttpException {
  constructor(
    status: number,
    readonly code: string,
    message: string,
  ) {
    super({ code, message }, status);
  }
}

export const notFound = (what: string) =>
  new Problem(404, 'not-found', `${what} is not here any more. Go back and look again.`);

export const signInFirst = () => new Problem(401, 'sign-in', 'Please sign in first.');
