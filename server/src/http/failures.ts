import type { Logger } from '@nestjs/common';

/** Failures that nobody has foreseen, counted since the start. */
export const failures = { count: 0 };

/**
 * Notes a failure with where it happened but not with what it said: messages of databases and parsers may quote
 * what people wrote.
 */
export function logFailure(logger: Logger, what: string, error: unknown): void {
  failures.count += 1;
  const { name, code, stack = '' } = error as Error & { code?: string };
  const frames = stack.split('\n').filter((line) => /^\s+at /.test(line));
  logger.error(`${what} (${[name, code].filter(Boolean).join(' ')})`, frames.slice(0, 12).join('\n'));
}

/** The last net under everything: what nobody has caught is noted, and everybody else is served on. */
export function catchEverything(logger: Logger): void {
  process.on('unhandledRejection', (reason) =>
    logFailure(logger, 'A promise failed that nobody watched', reason),
  );
  process.on('uncaughtException', (error) =>
    logFailure(logger, 'Something failed that nobody watched', error),
  );
}

/** For timers: does something, and notes where it fails instead of ending the process. */
export function guarded(logger: Logger, what: string, task: () => void): () => void {
  return () => {
    try {
      task();
    } catch (error) {
      logFailure(logger, what, error);
    }
  };
}
