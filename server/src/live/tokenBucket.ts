/** Lets `perSecond` messages through on average and `burst` at once. */
export class TokenBucket {
  private tokens: number;
  private filledAt = performance.now();

  constructor(
    private readonly burst: number,
    private readonly perSecond: number,
  ) {
    this.tokens = burst;
  }

  /** Whether one more message may pass now. */
  take(): boolean {
    const now = performance.now();
    this.tokens = Math.min(this.burst, this.tokens + ((now - this.filledAt) / 1000) * this.perSecond);
    this.filledAt = now;
    if (this.tokens < 1) return false;
    this.tokens -= 1;
    return true;
  }
}
