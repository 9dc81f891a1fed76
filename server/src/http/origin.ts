import type { NextFunction, Request, Response } from 'express';
import type { IncomingMessage } from 'node:http';
import type { Settings } from '../settings/settings.js';
import { isFromExtension } from './companionOrigin.js';
import { Problem } from './problem.js';

const SAFE = new Set(['GET', 'HEAD', 'OPTIONS']);

/**
 * Whether a request comes from Doodla's own pages, or from no browser at all. Browsers say where it comes from
 * with everything that changes something and with every socket (RFC 6454 §7; Fetch §3.2).
 */
export function isOwnOrigin(request: IncomingMessage, { publicUrl, trustProxy }: Settings): boolean {
  const { origin, host } = request.headers;
  if (origin === undefined) return request.headers['sec-fetch-site'] !== 'cross-site';
  if (!URL.canParse(origin)) return false;
  const forwarded = trustProxy > 0 ? request.headers['x-forwarded-host'] : undefined;
  const own = [host, forwarded, publicUrl && new URL(publicUrl).host].flat();
  return own.includes(new URL(origin).host);
}

/** Refuses what another site's page sends in the name of whoever looks at it. */
export function refuseForeign(settings: Settings) {
  return (request: Request, _response: Response, next: NextFunction): void => {
    // An extension is known by its token alone (`letCompanionAsk`).
    if (SAFE.has(request.method) || isOwnOrigin(request, settings) || isFromExtension(request)) return next();
    next(new Problem(403, 'foreign', 'This was sent by another website, so nothing was done.'));
  };
}
