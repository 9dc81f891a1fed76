import { ConsoleLogger } from '@nestjs/common';
import type { NextFunction, Request, Response } from 'express';
import { AsyncLocalStorage } from 'node:async_hooks';
import { randomUUID } from 'node:crypto';
import type { IncomingMessage } from 'node:http';

/** Names a request to all who handle it, and whoever asked. */
export const REQUEST_HEADER = 'x-request-id';
const NAME = /^[\w.-]{1,64}$/;

const current = new AsyncLocalStorage<string>();

/** Does something for a request, or a live connection, by whose name failures on the way are logged. */
export function inRequest<Result>(id: string, work: () => Result): Result {
  return current.run(id, work);
}

/** The name of the request that is being handled. */
export function requestId(): string | undefined {
  return current.getStore();
}

/** Gives a request its name: the one that whoever passed it on has given it, if they are trusted, or a new one. */
export function nameRequest(request: IncomingMessage, isTrusted: boolean): string {
  const given = request.headers[REQUEST_HEADER];
  const id = isTrusted && typeof given === 'string' && NAME.test(given) ? given : randomUUID();
  request.headers[REQUEST_HEADER] = id;
  return id;
}

/** Names all requests, in their answers too. */
export function nameRequests(isTrusted: (request: IncomingMessage) => boolean) {
  return (request: Request, response: Response, next: NextFunction): void => {
    const id = nameRequest(request, isTrusted(request));
    response.setHeader(REQUEST_HEADER, id);
    inRequest(id, next);
  };
}

/** Writes lines for people, or of JSON for programs, each with the name of the request in which it was written. */
export class RequestLogger extends ConsoleLogger {
  protected override getJsonLogObject(...all: Parameters<ConsoleLogger['getJsonLogObject']>) {
    const request = requestId();
    return { ...super.getJsonLogObject(...all), ...(request !== undefined && { request }) };
  }

  protected override formatPid(pid: number): string {
    const request = requestId();
    return super.formatPid(pid) + (request === undefined ? '' : `[${request}] `);
  }
}
