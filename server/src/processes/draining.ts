import type { INestApplication } from '@nestjs/common';
import { Logger } from '@nestjs/common';
import { logFailure } from '../http/failures.js';
import type { Settings } from '../settings/settings.js';
import { Leases } from './leases.js';
import { Readiness } from './readiness.js';
import { SharedLeases } from './sharedLeases.js';

/** Of the time for handing over, so much is for whoever sends requests here to see that they should not. */
const SEEN_SHARE = 1 / 2;
/** What still hangs on then is ended with the process. */
const LAST_MS = 10_000;

/**
 * One process of several hands its classes over before it ends, when it is told to (SIGTERM, SIGINT): it says that it is not
 * ready, so that no new connections come, and hands over one lesson after the other. Told twice, it ends at once.
 */
export function drainWhenStopped(app: INestApplication, { drainSeconds }: Settings): void {
  const leases = app.get(Leases);
  if (!(leases instanceof SharedLeases)) return;
  const stop = () => {
    for (const signal of SIGNALS) process.once(signal, () => process.exit(1));
    drain(app, leases, drainSeconds * 1000)
      .catch((error: unknown) =>
        logFailure(new Logger('Doodla'), 'Not everything could be handed over', error),
      )
      .finally(() => process.exit(0));
  };
  for (const signal of SIGNALS) process.once(signal, stop);
}

const SIGNALS = ['SIGTERM', 'SIGINT'] as const;

async function drain(app: INestApplication, leases: SharedLeases, ms: number): Promise<void> {
  app.get(Readiness).ends = true;
  leases.takeNothingMore();
  await new Promise((resolve) => setTimeout(resolve, ms * SEEN_SHARE));
  await leases.drain(ms * (1 - SEEN_SHARE));
  setTimeout(() => process.exit(1), LAST_MS).unref();
  await app.close();
}
