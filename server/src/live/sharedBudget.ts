import { LRUCache } from 'lru-cache';
import { TokenBucket } from './tokenBucket.js';

const MB = 1_000_000;
/** Bytes at once and a second: far more than classes write, far less than fills a disk in a lesson. */
const CLASS = { burst: 64 * MB, perSecond: 4 * MB };
const SCHOOL = { burst: 256 * MB, perSecond: 16 * MB };

/** Schools that write at once; one that has not written for longest begins anew. */
const MOST_SCHOOLS = 1000;

/** How much may be written in one log, and in all those of a school together, by however many people. */
export class SharedBudget {
  private readonly logs = new WeakMap<object, TokenBucket>();
  private readonly schools = new LRUCache<string, TokenBucket>({ max: MOST_SCHOOLS });

  /** Whether so many bytes more may be written now in a log of a school. */
  take(log: object, school: string, bytes: number): boolean {
    let own = this.logs.get(log);
    if (!own) this.logs.set(log, (own = new TokenBucket(CLASS.burst, CLASS.perSecond)));
    let whole = this.schools.get(school);
    if (!whole) this.schools.set(school, (whole = new TokenBucket(SCHOOL.burst, SCHOOL.perSecond)));
    return own.take(bytes) && whole.take(bytes);
  }
}
