import { hasExactly, isRecord } from '../checks/fields.js';
import { isId } from '../marks/fields.js';
import type { Change } from './operation.js';

/** Most changes in one operation. */
export const MAX_CHANGES = 10_000;

/** Fields of each kind of change beside `do`. What is in a mark, page or patch is judged by `refusalOf`. */
const FIELDS: Record<Change['do'], Record<string, (value: unknown) => boolean>> = {
  add: { mark: isRecord },
  patch: { mark: isId, set: isRecord },
  remove: { mark: isId },
  addPage: { page: isRecord },
  patchPage: { page: isId, set: isRecord },
  removePage: { page: isId },
};

/** Whether a value from outside has the outline of a list of changes. */
export function isChangeList(value: unknown): value is Change[] {
  return Array.isArray(value) && value.length <= MAX_CHANGES && value.every(isChange);
}

function isChange(value: unknown): boolean {
  if (!isRecord(value)) return false;
  const { do: kind, ...rest } = value;
  if (typeof kind !== 'string' || !Object.hasOwn(FIELDS, kind)) return false;
  return hasExactly(rest, FIELDS[kind as Change['do']]);
}
