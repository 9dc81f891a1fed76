import type { OnApplicationShutdown } from '@nestjs/common';
import { Injectable } from '@nestjs/common';
import type { Redis } from 'ioredis';
import type { RateLimiterAbstract } from 'rate-limiter-flexible';
import { RateLimiterMemory, RateLimiterRedis } from 'rate-limiter-flexible';
import { Settings } from '../settings/settings.js';
import { namespaceOf, redisLine } from './redis.js';

/** Limits of how often something may be tried: of all processes together, and of each by itself while Redis is away. */
@Injectable()
export class Limiters implements OnApplicationShutdown {
  private readonly redis: Redis | undefined;
  private readonly namespace: string;

  constructor({ redis, database }: Settings) {
    this.namespace = redis === undefined ? '' : namespaceOf(database);
    this.redis = redis === undefined ? undefined : redisLine(redis, false);
  }

  onApplicationShutdown(): void {
    this.redis?.disconnect();
  }

  /** So many tries in so many seconds; `name` is that of what is tried. */
  of(name: string, points: number, seconds: number): RateLimiterAbstract {
    const limit = { keyPrefix: `${this.namespace}:${name}`, points, duration: seconds };
    const alone = new RateLimiterMemory(limit);
    if (!this.redis) return alone;
    return new RateLimiterRedis({ ...limit, storeClient: this.redis, insuranceLimiter: alone });
  }
}
