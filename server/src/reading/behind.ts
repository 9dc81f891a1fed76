import { setPriority } from 'node:os';

/** How far threads that read files stand back behind those that serve, from 0 to 19 (setpriority(2)). */
const NICENESS = 10;

/** Lets this thread stand back where others need the processor. Only Linux has priorities of threads. */
export function standBehind(): void {
  if (process.platform === 'linux') setPriority(0, NICENESS);
}
