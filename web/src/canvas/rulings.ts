import type { Surface } from '@doodla/core';
import { isRulingKnown } from '@doodla/core';

/** Makes it known how the ruling of a page is painted. Returns whether it was not known before. */
export async function needRuling(surface: Surface): Promise<boolean> {
  if (isRulingKnown(surface)) return false;
  await import('@doodla/core/rulings');
  return true;
}
