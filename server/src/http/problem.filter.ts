import type { ArgumentsHost, ExceptionFilter } from '@nestjs/common';
import { BadRequestException, Catch, HttpException, Logger } from '@nestjs/common';
import type { Response } from 'express';
import { badInputCode } from './badInput.js';
import { logFailure } from './failures.js';
import { moving, notFound, Problem } from './problem.js';
import { ElsewhereError } from '../processes/leases.js';
import { FencedError } from '../storage/logDatabase.js';
import { diskFull, isFull } from '../storage/diskSpace.js';

/** Answers a failed request with `{code, message}`; the message is fit to be shown. */
@Catch()
export class ProblemFilter implements ExceptionFilter {
  private readonly logger = new Logger('Http');

  catch(error: unknown, host: ArgumentsHost): void {
    const response = host.switchToHttp().getResponse<Response>();
    if (response.headersSent) {
      response.end();
      return;
    }
    const problem = this.problemOf(error);
    response.status(problem.getStatus()).json(problem.getResponse());
  }

  private problemOf(error: unknown): Problem {
    if (error instanceof Problem) return error;
    if (error instanceof BadRequestException) return badInput(error);
    if (isFull(error)) return diskFull();
    if (error instanceof ElsewhereError || error instanceof FencedError) return moving();
    const { status } = error as { status?: unknown };
    if (status === 413)
      return new Problem(413, 'request-too-large', 'That is too large to be sent in one go.');
    // A file that is asked for and is not there, or an address that cannot be read.
    if (status === 404) return notFound('This');
    if (typeof status === 'number' && status >= 400 && status < 500 && !(error instanceof HttpException))
      return notUnderstood(status);
    if (error instanceof HttpException && error.getStatus() < 500) {
      return notUnderstood(error.getStatus());
    }
    logFailure(this.logger, 'A request failed', error);
    return new Problem(
      500,
      'failed',
      'Something went wrong on the server. Nothing was lost; please try again.',
    );
  }
}

function notUnderstood(status: number): Problem {
  return new Problem(status, 'refused', 'This request was not understood. Reload the page and try again.');
}

function badInput(error: BadRequestException): Problem {
  const { message } = error.getResponse() as { message: string | string[] };
  const sentence = Array.isArray(message) ? message[0]! : message;
  return new Problem(400, badInputCode(sentence), sentence);
}
