import { existsSync, mkdirSync, readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import type { NestExpressApplication } from '@nestjs/platform-express';
import type { NextFunction, Request, Response } from 'express';
import { createSecureContext } from 'node:tls';
import type { Settings } from '../settings/settings.js';
import { StartError } from '../storage/dataFolder.js';
import type { KeyPair } from './schoolCertificate.js';

/** Where the school's own root and the certificate that it has signed are kept. */
export class TlsFiles {
  private readonly folder: string;

  constructor(data: string) {
    this.folder = join(data, 'tls');
  }

  readonly path = (name: 'root.crt' | 'root.key' | 'server.crt' | 'server.key') => join(this.folder, name);

  get hasRoot(): boolean {
    return existsSync(this.path('root.crt')) && existsSync(this.path('root.key'));
  }

  get hasServer(): boolean {
    return existsSync(this.path('server.crt')) && existsSync(this.path('server.key'));
  }

  read(who: 'root' | 'server'): KeyPair {
    return {
      certificate: readFileSync(this.path(`${who}.crt`), 'utf8'),
      key: readFileSync(this.path(`${who}.key`), 'utf8'),
    };
  }

  write(who: 'root' | 'server', { certificate, key }: KeyPair): void {
    mkdirSync(this.folder, { recursive: true });
    writeFileSync(this.path(`${who}.crt`), certificate);
    writeFileSync(this.path(`${who}.key`), key, { mode: 0o600 });
  }
}

/** Certificate and key to serve HTTPS with: those of the settings, else the school's own; undefined for plain HTTP. */
export function tlsOf({ tlsCert, tlsKey, data }: Settings): { cert: string; key: string } | undefined {
  if (tlsCert && tlsKey) return checked({ certificate: readPem(tlsCert), key: readPem(tlsKey) });
  const files = new TlsFiles(data);
  return files.hasServer ? checked(files.read('server')) : undefined;
}

/** Hands the school's root out, so that devices can come to trust it. */
export function serveRoot(app: NestExpressApplication, { data }: Settings): void {
  const files = new TlsFiles(data);
  app.use('/root.crt', (_request: Request, response: Response, next: NextFunction) => {
    if (!files.hasRoot) return next();
    response.type('application/x-x509-ca-cert').send(files.read('root').certificate);
  });
}

function readPem(path: string): string {
  try {
    return readFileSync(path, 'utf8');
  } catch (error) {
    throw new StartError(
      `The certificate or key ${path} cannot be read (${(error as NodeJS.ErrnoException).code}). Check DOODLA_TLS_CERT and DOODLA_TLS_KEY.`,
    );
  }
}

/** Throws StartError where a certificate and key do not go together. */
function checked({ certificate: cert, key }: KeyPair): { cert: string; key: string } {
  try {
    createSecureContext({ cert, key });
    return { cert, key };
  } catch (error) {
    throw new StartError(
      `The certificate and its key cannot be used together: ${(error as Error).message}. Check DOODLA_TLS_CERT and DOODLA_TLS_KEY, both PEM files.`,
    );
  }
}
