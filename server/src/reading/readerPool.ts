import type { TurnOptions } from './fairTurns.js';
import { FairTurns } from './fairTurns.js';
import type { ProcessLimits, TaskOptions } from './limitedProcess.js';
import { LimitedProcess } from './limitedProcess.js';

/** How long a process that has nothing to do is kept, milliseconds. */
const IDLE_MS = 60_000;

/** Some processes that read strangers' files, for whoever's turn it is. */
export class ReaderPool<Task, Answer, Note = never> {
  private readonly turns: FairTurns;
  private readonly idle: LimitedProcess<Task, Answer, Note>[];
  private readonly ends = new Map<LimitedProcess<Task, Answer, Note>, NodeJS.Timeout>();

  constructor(script: URL, limits: ProcessLimits, size: number) {
    this.turns = new FairTurns(size);
    this.idle = Array.from({ length: size }, () => new LimitedProcess(script, limits));
  }

  /** Starts one ahead of the first task; it stays. */
  warmUp(): void {
    this.idle.at(-1)!.warmUp();
  }

  stop(): void {
    for (const [reader, end] of this.ends) {
      clearTimeout(end);
      reader.stop();
    }
    for (const reader of this.idle) reader.stop();
  }

  /** Rejects as `LimitedProcess.run` does. */
  run(task: Task, options: TurnOptions & TaskOptions<Note>): Promise<Answer> {
    return this.turns.run(options, async () => {
      // There are as many readers as turns.
      const reader = this.idle.pop()!;
      clearTimeout(this.ends.get(reader));
      try {
        return await reader.run(task, options);
      } finally {
        this.putBack(reader);
      }
    });
  }

  private putBack(reader: LimitedProcess<Task, Answer, Note>): void {
    this.idle.push(reader);
    const end = setTimeout(() => {
      if (this.idle.at(-1) !== reader) reader.stop();
    }, IDLE_MS);
    this.ends.set(reader, end.unref());
  }
}
