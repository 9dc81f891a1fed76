import { Worker } from 'node:worker_threads';
import { standBehind } from './behind.js';
import type { FromProcess, ToProcess } from './limitedProcess.js';

export interface TaskServer<Task, Note> {
  /** Does a task; `ask` says something while it works, and resolves to what comes back. */
  run(task: Task, ask: (note: Note) => Promise<unknown>): Promise<unknown>;
  /** What is said of an error. */
  failureOf(error: unknown): unknown;
}

/** Does the tasks of a `LimitedProcess` in this process, which ends with whoever started it, or when it grows too large. */
export function serveTasks<Task, Note>({ run, failureOf }: TaskServer<Task, Note>): void {
  /** Replies come in the order in which they were asked for. */
  const awaited: ((reply: unknown) => void)[] = [];
  const ask = (note: Note) => {
    const reply = new Promise<unknown>((resolve) => awaited.push(resolve));
    say({ note });
    return reply;
  };
  standBehind();
  watchOver(Number(process.argv[2]), Number(process.argv[3]));
  process.on('disconnect', () => process.exit());
  process.on('message', (message: ToProcess<Task>) => {
    if ('reply' in message) return awaited.shift()?.(message.reply);
    awaited.length = 0;
    run(message.task, ask).then(
      (done) => say({ done }),
      (error: unknown) => say({ failed: failureOf(error) }),
    );
  });
  say({ up: true });
}

function say(message: FromProcess<unknown, unknown>): void {
  // Where it cannot be said any more, nobody is there to hear it, and this process ends.
  process.send?.(message, () => undefined);
}

/**
 * Ends this process when it takes more memory than it may, or when whoever started it is gone, however busy it is: its
 * heap has a limit of its own, but pictures and compiled code lie outside of that. Who started it may be gone before
 * this thread has begun.
 */
function watchOver(memoryMb: number, starter: number): void {
  const watch = `
    setInterval(() => {
      if (process.memoryUsage.rss() > ${memoryMb} * 1e6 || process.ppid !== ${starter}) process.kill(process.pid, 'SIGKILL');
    }, 50);`;
  new Worker(watch, { eval: true }).unref();
}
