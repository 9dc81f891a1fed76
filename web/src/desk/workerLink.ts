import type { Remote } from 'comlink';
import { wrap } from 'comlink';

interface Opened<Works> {
  remote: Remote<Works>;
  failed: Promise<never>;
}

/**
 * A worker that is made when something is first asked of it. Where it cannot be fetched, what was asked fails, and what is asked
 * next makes it anew.
 */
export class WorkerLink<Works> {
  private opened: Opened<Works> | undefined;

  constructor(private readonly make: () => Worker) {}

  /** Asks something of the worker. Throws where it cannot be fetched, and what it throws itself. */
  ask<Answer>(question: (remote: Remote<Works>) => Promise<Answer>): Promise<Answer> {
    this.opened ??= this.open();
    const { remote, failed } = this.opened;
    return Promise.race([question(remote), failed]);
  }

  private open(): Opened<Works> {
    const worker = this.make();
    const failed = new Promise<never>((_, reject) => {
      worker.addEventListener('error', () => {
        this.opened = undefined;
        worker.terminate();
        reject(new Error('The worker could not be fetched, or has failed.'));
      });
    });
    // Whoever asks hears of it; where nobody has asked, there is nobody to tell.
    failed.catch(() => undefined);
    return { remote: wrap<Works>(worker), failed };
  }
}
