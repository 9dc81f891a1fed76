import type { NextFunction, Request, Response } from 'express';
import helmet from 'helmet';

/**
 * Built files that obey the policy of the page that asks for them; a worker obeys what its own file came with
 * (CSP3 §4.2). A first visit asks for dozens, and a slow line would spend two seconds on their headers.
 */
const ASSET = /^\/assets\/(?!.*worker)/;

/** Security headers. Scripts only from here; WebAssembly for the PDF engine's picture decoders. */
export function securityHeaders(https: boolean) {
  const all = pageHeaders(https);
  return (request: Request, response: Response, next: NextFunction): void => {
    if (!ASSET.test(request.path)) return all(request, response, next);
    response.set({ 'X-Content-Type-Options': 'nosniff', 'Cross-Origin-Resource-Policy': 'same-origin' });
    next();
  };
}

function pageHeaders(https: boolean) {
  return helmet({
    contentSecurityPolicy: {
      directives: {
        defaultSrc: ["'self'"],
        scriptSrc: ["'self'", "'wasm-unsafe-eval'"],
        styleSrc: ["'self'", "'unsafe-inline'"],
        imgSrc: ["'self'", 'data:', 'blob:'],
        mediaSrc: ["'self'", 'blob:'],
        fontSrc: ["'self'", 'data:', 'blob:'],
        connectSrc: ["'self'", 'ws:', 'wss:', 'blob:'],
        workerSrc: ["'self'", 'blob:'],
        frameAncestors: ["'self'"],
        upgradeInsecureRequests: https ? [] : null,
      },
    },
    strictTransportSecurity: https,
  });
}
