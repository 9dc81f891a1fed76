import type { ChildProcess } from 'node:child_process';
import { fork } from 'node:child_process';
import { fileURLToPath } from 'node:url';

/** What a process says: that it is up, and then of the task that it was given. */
export type FromProcess<Answer, Note> =
  { up: true } | { done: Answer } | { failed: unknown } | { note: Note };
/** What it is sent: a task, or the answer to a note. */
export type ToProcess<Task> = { task: Task } | { reply: unknown };

export interface ProcessLimits {
  /** Longest that a task may take once the process is up, milliseconds. */
  timeMs: number;
  /** All that the process may take, not its objects alone, in megabytes. */
  memoryMb: number;
}

export interface TaskOptions<Note> {
  /** Told what the process says while it works; what it returns or resolves to is sent back. */
  onNote?(note: Note): unknown;
  signal?: AbortSignal | undefined;
}

/** Longest that a process may take to start, milliseconds: a busy machine is not the fault of a file. */
const START_MS = 60_000;

/** Thrown where a task took too long, or more memory than it may, or crashed its process. */
export class LimitError extends Error {
  override name = 'LimitError';

  constructor(readonly why: 'slow' | 'crashed') {
    super(`The process was ended: ${why}`);
  }
}

/**
 * A process that does tasks with strangers' files one after the other (`serveTasks`). Whatever a file does to it, it is
 * ended at its limits and started anew, and the server goes on.
 */
export class LimitedProcess<Task, Answer, Note = never> {
  private child: ChildProcess | undefined;
  private isUp = false;

  constructor(
    private readonly script: URL,
    private readonly limits: ProcessLimits,
  ) {}

  /** Starts the process ahead of the first task. */
  warmUp(): void {
    this.child ??= this.start();
  }

  stop(): void {
    this.child?.kill('SIGKILL');
    this.child = undefined;
  }

  /** One task at a time. Rejects with LimitError, with what the process says has failed, or with the signal's reason. */
  async run(task: Task, { onNote, signal }: TaskOptions<Note> = {}): Promise<Answer> {
    signal?.throwIfAborted();
    const child = (this.child ??= this.start());
    const listeners = new AbortController();
    try {
      return await new Promise<Answer>((resolve, reject) => {
        const end = (reason: unknown) => {
          this.stop();
          reject(reason);
        };
        const limitedTo = (ms: number) => setTimeout(() => end(new LimitError('slow')), ms);
        let timer = limitedTo(this.isUp ? this.limits.timeMs : START_MS);
        const abort = () => end(signal!.reason);
        const crash = () => end(new LimitError('crashed'));
        const send = (message: ToProcess<Task>) => child.send(message, (failed) => failed && crash());
        const reply = async (note: Note) => send({ reply: await onNote?.(note) });
        const listen = (message: FromProcess<Answer, Note>) => {
          if ('done' in message) resolve(message.done);
          else if ('failed' in message) reject(message.failed);
          else if ('up' in message) {
            clearTimeout(timer);
            timer = limitedTo(this.limits.timeMs);
          } else reply(message.note).catch(end);
        };
        child.on('message', listen).on('exit', crash);
        signal?.addEventListener('abort', abort);
        listeners.signal.addEventListener('abort', () => {
          clearTimeout(timer);
          child.off('message', listen).off('exit', crash);
          signal?.removeEventListener('abort', abort);
        });
        send({ task });
      });
    } finally {
      listeners.abort();
    }
  }

  private start(): ChildProcess {
    const { memoryMb } = this.limits;
    const child = fork(fileURLToPath(this.script), [String(memoryMb), String(process.pid)], {
      serialization: 'advanced',
      execArgv: [`--max-old-space-size=${memoryMb}`],
      stdio: ['ignore', 'ignore', 'inherit', 'ipc'],
      // What the server was told, its secrets among it, is nothing for a process that reads strangers' files.
      env: { PATH: process.env.PATH },
    });
    this.isUp = false;
    child.once('message', () => (this.isUp = this.child === child));
    const forget = () => {
      if (this.child === child) this.child = undefined;
    };
    // A file that crashes the process must not take the server with it.
    child.on('error', forget).on('exit', forget);
    child.unref();
    child.channel?.unref();
    return child;
  }
}
