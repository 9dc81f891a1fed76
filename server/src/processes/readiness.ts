import { Injectable } from '@nestjs/common';
import { Leases } from './leases.js';
import { SharedLeases } from './sharedLeases.js';

/** Whether this process wants to be sent requests. */
@Injectable()
export class Readiness {
  /** It is told to end, and hands over what it has. */
  ends = false;

  constructor(private readonly leases: Leases) {}

  get wanted(): boolean {
    return !this.ends && (!(this.leases instanceof SharedLeases) || this.leases.isPresent);
  }
}
