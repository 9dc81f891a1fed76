import { Logger } from '@nestjs/common';
import { Redis } from 'ioredis';
import { logFailure } from '../http/failures.js';
import { StartError } from '../storage/dataFolder.js';

const START_MS = 5000;
const MOST_WAIT_MS = 1000;

/**
 * A line to Redis, which comes back by itself. `patient`: what is sent while it is away waits for it; else it fails at once, for
 * those who can do without.
 */
export function redisLine(url: string, isPatient: boolean): Redis {
  const redis = new Redis(url, {
    lazyConnect: true,
    maxRetriesPerRequest: isPatient ? null : 0,
    enableOfflineQueue: isPatient,
    retryStrategy: (times) => Math.min(MOST_WAIT_MS, times * 50),
    ...(!isPatient && { commandTimeout: MOST_WAIT_MS }),
  });
  const logger = new Logger('Redis');
  let isAway = false;
  redis.on('error', (error) => {
    // Said once, and not with every try.
    if (!isAway) logFailure(logger, 'Redis was lost', error);
    isAway = true;
  });
  redis.on('ready', () => (isAway = false));
  // What cannot be connected yet is tried again, and has been told.
  redis.connect().catch(() => undefined);
  return redis;
}

/** What an installation calls its own in Redis, by the name of its database: others may use the same. */
export function namespaceOf(database: string): string {
  return `doodla:${new URL(database).pathname.slice(1)}`;
}

/** Throws StartError where Redis does not answer. */
export async function checkRedis(url: string): Promise<void> {
  const redis = new Redis(url, { lazyConnect: true, connectTimeout: START_MS, retryStrategy: () => null });
  redis.on('error', () => undefined); // It is told below.
  try {
    await redis.connect();
    await redis.ping();
  } catch (error) {
    throw new StartError(
      `Redis in DOODLA_REDIS cannot be reached (${(error as Error).message}). Nothing was changed. Start it, or look at the address.`,
    );
  } finally {
    redis.disconnect();
  }
}
