import type { Playing, Timer } from '../live/scene.js';

/** Milliseconds that a timer has run at a moment of the server's clock. */
export function timerElapsed({ before, startedAt }: Timer, now: number): number {
  return before + (startedAt === null ? 0 : Math.max(0, now - startedAt));
}

/** Milliseconds left of a countdown, at least 0; undefined for a stopwatch. */
export function timerLeft(timer: Timer, now: number): number | undefined {
  if (timer.kind === 'stopwatch') return undefined;
  return Math.max(0, timer.length - timerElapsed(timer, now));
}

/** A timer as people read it: 2:59, 1:00:00; a countdown shows a second that has begun as whole. */
export function timerText(timer: Timer, now: number): string {
  const left = timerLeft(timer, now);
  const seconds = left === undefined ? Math.floor(timerElapsed(timer, now) / 1000) : Math.ceil(left / 1000);
  const [hours, minutes, rest] = [Math.floor(seconds / 3600), Math.floor(seconds / 60) % 60, seconds % 60];
  const two = (value: number) => String(value).padStart(2, '0');
  return hours > 0 ? `${hours}:${two(minutes)}:${two(rest)}` : `${minutes}:${two(rest)}`;
}

/** Seconds into a file that everybody is at, at a moment of the server's clock. */
export function playedTo({ playing, position, at }: Playing, now: number): number {
  return position + (playing ? Math.max(0, now - at) / 1000 : 0);
}
