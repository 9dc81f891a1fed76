import type { ArgumentsHost, ExceptionFilter } from '@nestjs/common';
import { BadRequestException, Catch, HttpException, Logger } from '@nestjs/common';
import type { Response } from 'express';
import { Problem } from './problem.js';

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
    if (error instanceof BadRequestException) return new Problem(400, 'bad-input', firstSentence(error));
    if (error instanceof HttpException && error.getStatus() < 500) {
      return new Problem(
        error.getStatus(),
        'refused',
        'This request was not understood. Reload the page and try again.',
      );
    }
    this.logger.error(error);
    return new Problem(
      500,
      'failed',
      'Something went wrong on the server. Nothing was lost; please try again.',
    );
  }
}

function firstSentence(error: BadRequestException): string {
  const { message } = error.getResponse() as { message: string | string[] };
  return Array.isArray(message) ? message[0]! : message;
}
