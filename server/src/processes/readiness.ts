import { Injectable } from '@nestjs/common';

/** Whether this process wants to be sent requests. */
@Injectable()
export class Readiness {
  /** It is told to end, and hands over what it has. */
  ends = false;
}
