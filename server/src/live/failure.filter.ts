import type { ArgumentsHost, ExceptionFilter } from '@nestjs/common';
import { Catch, Logger } from '@nestjs/common';
import type { Failure, PassingCode } from '@doodla/core';
import { Refusal } from '@doodla/core';
import { logFailure } from '../http/failures.js';
import { Problem } from '../http/problem.js';
import { ElsewhereError } from '../processes/leases.js';
import { isFull } from '../storage/diskSpace.js';
import { FencedError } from '../storage/logDatabase.js';

const SENT_AGAIN = {
  code: 'sent-again' satisfies PassingCode,
  message: 'Something went wrong on the server. Your work is kept here and will be sent again.',
};
const STORAGE_FULL = {
  code: 'storage-full' satisfies PassingCode,
  message:
    'The server’s disk is full, so nothing more can be saved there just now. What you write is kept here and will be sent as soon as there is room. Please tell the school’s technical person.',
};

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
    if (error instanceof ElsewhereError || error instanceof FencedError) return { error: SENT_AGAIN };
    logFailure(this.logger, 'A request failed', error);
    return { error: isFull(error) ? STORAGE_FULL : SENT_AGAIN };
  }
}
