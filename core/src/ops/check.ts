import { isId } from '../marks/check.js';
import type { Change } from './operation.js';

/** Most changes in one operation. */
export const MAX_CHANGES = 10_000;

const isObject = (value: unknown) => typeof value === 'object' && value !== null && !Array.isArray(value);

/** Fields of each kind of change beside `do`. What is in a mark, page or patch is judged by `refusalOf`. */
const FIELDS: Record<Change['do'], Record<string, (value: unknown) => boolean>> = {
  add: { mark: isObject },
  patch: { mark: isId, set: isObject },
  remove: { mark: isId },
  addPage: { page: isObject },
  patchPage: { page: isId, set: isObject },
  removePage: { page: isId },
};

/** Whether a value from outside has the outline of a list of changes. */
export function isChangeList(value: unknown): value is Change[] {
  return Array.isArray(value) && value.length <= MAX_CHANGES && value.every(isChange);
}

function isChange(value: unknown): boolean {
  if (!isObject(value)) return false;
  const { do: kind, ...rest } = value as Record<string, unknown>;
  if (typeof kind !== 'string' || !Object.hasOwn(FIELDS, kind)) return false;
  const fields = FIELDS[kind as Change['do']];
  return (
    Object.keys(rest).length === Object.keys(fields).length &&
    Object.entries(fields).every(([key, is]) => is(rest[key]))
  );
}
