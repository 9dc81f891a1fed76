import type { INestApplication } from '@nestjs/common';
import express from 'express';
import type { NextFunction, Request, Response } from 'express';
import { join } from 'node:path';

/** Serves the built web application: hashed files for ever, the start page for every other address. */
export function serveWebApp(app: INestApplication, folder: string): void {
  app.use(
    '/assets',
    express.static(join(folder, 'assets'), { immutable: true, maxAge: '1y', fallthrough: false }),
  );
  app.use(express.static(folder, { maxAge: '1h', index: false }));
  app.use((request: Request, response: Response, next: NextFunction) => {
    const isPage =
      request.method === 'GET' && !request.path.startsWith('/api/') && !request.path.startsWith('/live');
    if (!isPage) return next();
    response.sendFile(join(folder, 'index.html'), {
      cacheControl: false,
      headers: { 'Cache-Control': 'no-cache' },
    });
  });
}
