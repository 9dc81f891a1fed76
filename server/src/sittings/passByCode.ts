import type { INestApplication } from '@nestjs/common';
import type { NextFunction, Request, Response } from 'express';
import { json } from 'express';
import { DevicesService } from '../devices/devices.service.js';
import type { PassingOn } from '../processes/passingOn.js';
import { SittingsService } from './sittings.service.js';

/** Codes are short; whatever is longer is refused where it is read in full. */
const MOST_BYTES = '16kb';

/** Passes those who come by a code on to the process that has their class in hand. */
export function passByCode(app: INestApplication, passingOn: PassingOn): void {
  const [sittings, devices] = [app.get(SittingsService), app.get(DevicesService)];
  const parse = json({ limit: MOST_BYTES });
  // Nest would take it for the one that it brings itself, for all addresses, and leave that out.
  const read = (...call: Parameters<typeof parse>) => parse(...call);
  app.use(
    '/api/join',
    read,
    passing(passingOn, async (code) => (await sittings.codeLeadsTo(code))?.id),
  );
  app.use(
    '/api/devices',
    read,
    passing(passingOn, (code) => devices.codeLeadsTo(code)),
  );
}

function passing(passingOn: PassingOn, leadsTo: (code: string) => Promise<string | undefined>) {
  return (request: Request, response: Response, next: NextFunction): void => {
    const body = request.body as { code?: unknown } | undefined;
    const code = body?.code ?? request.query.code;
    if (typeof code !== 'string') return next();
    leadsTo(code)
      .then((about) => (about === undefined ? undefined : passingOn.placeOf(request, about)))
      .then((peer) => {
        if (!peer) return next();
        // What was mounted here is part of the address again.
        request.url = request.originalUrl;
        passingOn.pass(peer, request, response, request.method === 'POST' ? body : undefined);
      })
      .catch(next);
  };
}
