/** Does things a moment after they are asked for, each once however often it is asked for until then. */
export class Soon {
  private readonly waiting = new Set<string>();

  /** `failed` is told of what could not be done. */
  constructor(
    private readonly ms: number,
    private readonly failed: (error: unknown) => void,
  ) {}

  run(what: string, task: () => Promise<void>): void {
    if (this.waiting.has(what)) return;
    this.waiting.add(what);
    setTimeout(() => {
      this.waiting.delete(what);
      task().catch(this.failed);
    }, this.ms).unref();
  }
}
