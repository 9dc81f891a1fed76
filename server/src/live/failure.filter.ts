import type { ArgumentsHost, ExceptionFilter } from '@nestjs/common';
import { Catch, Logger } from '@nestjs/common';
import type { Failure } from '@doodla/core';
import { Refusal } from '@doodla/core';
import { logFailure } from '../http/failures.js';
import { Problem } from '../http/problem.js';

/** Answers a failed live message with a code and a sentence, by its acknowledgement. */
@Catch()
export class FailureFilter implements ExceptionFilter {
  private readonly logger = new Logger('Live');

  catch(error: unknown, host: ArgumentsHost): void {
    const acknowledge = host.getArgs<unknown[]>().find((arg) => typeof arg === 'function') as
      ((failure: Failure) => void) | undefined;
    acknowledge?.(this.failureOf(error));
  }

  private failureOf(error: unknown): Failure {
    if (error instanceof Refusal) return { error: { code: error.code, message: error.message } };
    if (error instanceof Problem) return { error: error.getResponse() as Failure['error'] };
    logFailure(this.logger, 'A request failed', error);
    return {
      error: {
        code: 'sent-again',
        message: 'Something went wrong on the server. Your work is kept here and will be sent again.',
      },
    };
  }
}
