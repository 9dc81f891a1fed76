import helmet from 'helmet';

/** Security headers. Scripts only from here; WebAssembly for the PDF engine's picture decoders. */
export function securityHeaders(https: boolean) {
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
