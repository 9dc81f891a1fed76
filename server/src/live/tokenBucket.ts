/** Lets `perSecond` of something through on average and `burst` at once. */
export class TokenBucket {
  private tokens: number;
  private filledAt = performance.now();

  constructor(
    private readonly burst: number,
    private readonly perSecond: number,
  ) {
    this.tokens = burst;
  }

  /** Whether so much more may pass now. */
  take(cost = 1): boolean {
    this.fill();
    if (this.tokens < cost) return false;
    this.tokens -= cost;
    return true;
  }

  /** Resolves when so much may pass; takes what there is on credit where it costs more than a burst. */
  async wait(cost: number): Promise<void> {
    this.fill();
    this.tokens -= cost;
    if (this.tokens >= 0) return;
    await new Promise((resolve) => setTimeout(resolve, (-this.tokens / this.perSecond) * 1000));
  }

  private fill(): void {
    const now = performance.now();
    this.tokens = Math.min(this.burst, this.tokens + ((now - this.filledAt) / 1000) * this.perSecond);
    this.filledAt = now;
  }
}
