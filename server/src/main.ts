import 'reflect-metadata';
import { Logger } from '@nestjs/common';
import { createApp, serve } from './app.js';
import { catchEverything } from './http/failures.js';
import { inviteOperator } from './installation/inviteOperator.js';
import { drainWhenStopped } from './processes/draining.js';
import type { Settings } from './settings/settings.js';
import { readSettings, SettingsError } from './settings/settings.js';
import { StartError } from './storage/dataFolder.js';
import { tlsOf } from './tls/tlsFiles.js';

const WEB_FOLDER = new URL('../../web/dist/', import.meta.url).pathname;

try {
  const settings = readSettings(process.env);
  const app = await createApp(settings, WEB_FOLDER);
  await serve(app, settings);
  drainWhenStopped(app, settings);
  catchEverything(new Logger('Doodla'));
  greet(settings, await inviteOperator(app, settings));
} catch (error) {
  console.error(sentenceOf(error));
  process.exit(1);
}

function greet(settings: Settings, invitation: string | undefined): void {
  const isSecure = tlsOf(settings) !== undefined;
  const address = settings.publicUrl ?? `${isSecure ? 'https' : 'http'}://localhost:${settings.port}`;
  console.log(`Doodla listens on ${address}`);
  if (invitation !== undefined)
    console.log(`Whoever looks after this installation comes in by ${address}/invited/${invitation}`);
  if (!isSecure && !settings.publicUrl?.startsWith('https:') && !settings.demo)
    console.log(
      'Over plain HTTP, other computers than this one cannot show a screen or camera, copy pictures, or keep their screens awake; everything else works. “npm run certificate” makes a certificate of the school’s own.',
    );
}

/** Every reason not to start is a sentence with what to do. */
function sentenceOf(error: unknown): string {
  if (error instanceof SettingsError || error instanceof StartError) return error.message;
  const { code, message, address, port } = error as NodeJS.ErrnoException & {
    address?: string;
    port?: number;
  };
  switch (code) {
    case 'EADDRINUSE':
      return `Port ${port} is in use by another program. Stop that one, or set DOODLA_PORT to another port.`;
    case 'EACCES':
      return `Port ${port} may not be used by this account. Set DOODLA_PORT to one above 1023.`;
    case 'EADDRNOTAVAIL':
    case 'ENOTFOUND':
    case 'EAI_AGAIN':
      return `This computer has no address ${address ?? ''} to listen on. Set DOODLA_HOST to one of its own, or leave it out.`;
    default:
      return `Doodla could not start: ${message} (${code ?? (error as Error).name}).`;
  }
}
