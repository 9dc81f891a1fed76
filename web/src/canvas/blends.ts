import type { Mark } from '@doodla/core';

/** Whether a mark lets what is under it through, as a highlighter does. */
export function blends(mark: Mark): boolean {
  return (
    (mark.kind === 'stroke' && mark.style.nature === 'highlighter') ||
    (mark.kind === 'quote' && mark.look === 'highlight')
  );
}
