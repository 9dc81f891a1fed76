import type { INestApplication } from '@nestjs/common';
import type { NextFunction, Request, Response } from 'express';
import serveCompressed from 'express-static-gzip';
import { join } from 'node:path';

/** Built files have their compressed twins beside them (scripts/precompress). */
const twins = { enableBrotli: true, orderPreference: ['br', 'gz'], index: false };

/** Addresses that are no pages of the application: the server answers them itself. */
const ANSWERED = /^\/(api\/|live|health(\/ready)?$|metrics$)/;

/** Serves the built web application: hashed files for ever, the start page for every other address. */
export function serveWebApp(app: INestApplication, folder: string): void {
  app.use(
    '/assets',
    serveCompressed(join(folder, 'assets'), {
      ...twins,
      serveStatic: { immutable: true, maxAge: '1y', fallthrough: false },
    }),
  );
  app.use(serveCompressed(folder, { ...twins, serveStatic: { maxAge: '1h', index: false } }));
  app.use((request: Request, response: Response, next: NextFunction) => {
    if (request.method !== 'GET' || ANSWERED.test(request.path)) return next();
    response.sendFile(join(folder, 'index.html'), {
      cacheControl: false,
      headers: { 'Cache-Control': 'no-cache' },
    });
  });
}
