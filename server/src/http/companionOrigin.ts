import type { NextFunction, Request, Response } from 'express';
import type { IncomingMessage } from 'node:http';

/** Addresses of browser extensions (W3C WebExtensions): no website can have one. */
const EXTENSION = /^(chrome|moz)-extension:\/\/[\w-]+$/;
/** What the companion asks for; each by a code or by the token that it was given for one. */
const ASKED =
  /^\/api\/(devices|sittings\/[^/]+\/(pictures|webpages)|lessons\/[^/]+\/(pictures|webpages\/live))$/;
const ALLOWED = {
  'Access-Control-Allow-Methods': 'POST',
  'Access-Control-Allow-Headers': 'authorization, content-type',
  'Access-Control-Max-Age': '600',
};

/** Whether a request comes from an extension of a browser, such as the companion. */
export function isFromExtension({ headers }: IncomingMessage): boolean {
  return EXTENSION.test(headers.origin ?? '');
}

/** Whoever is signed in in that browser, an extension does not speak for them: it has a token of its own or nothing. */
export function withoutCookies(request: IncomingMessage): void {
  delete request.headers.cookie;
}

/** Answers browsers that ask whether the companion may send something here (Fetch standard, CORS protocol). */
export function letCompanionAsk(request: Request, response: Response, next: NextFunction): void {
  if (!isFromExtension(request)) return next();
  withoutCookies(request);
  response.set({ 'Access-Control-Allow-Origin': request.headers.origin, Vary: 'Origin' });
  if (!ASKED.test(request.path)) return next();
  if (request.method !== 'OPTIONS') return next();
  response.set(ALLOWED).status(204).end();
}
