import type { Mark, MarkPatch } from './mark.js';
import { kindOf } from './mark.js';
import type { Transform } from './transform.js';

/** The patch that does a transform to a mark. Lines stay as thick as they are unless all is resized alike. */
export function transformPatch(mark: Mark, transform: Transform): MarkPatch {
  return kindOf(mark).transform(mark, transform);
}
