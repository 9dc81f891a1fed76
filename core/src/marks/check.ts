import { hasExactly, hasOnly, isRecord } from '../checks/fields.js';
import type { Kind } from './kind.js';
import { FIXED, SHARED, SHARED_OPTIONAL } from './fields.js';
import { KINDS } from './kinds.js';
import type { Mark, MarkKind, MarkPatch } from './mark.js';

function isKind(kind: unknown): kind is MarkKind {
  return typeof kind === 'string' && Object.hasOwn(KINDS, kind);
}

const checksOf = (kind: MarkKind): Pick<Kind<never>, 'fields' | 'optional' | 'style'> => KINDS[kind];

/** Whether a value from outside is a whole mark with nothing missing, nothing extra and all in range. */
export function isMark(value: unknown): value is Mark {
  if (!isRecord(value)) return false;
  const { kind, style, ...fields } = value;
  if (!isKind(kind)) return false;
  const checks = checksOf(kind);
  const needed = { ...SHARED, ...checks.fields };
  return (
    Object.keys(needed).every((key) => Object.hasOwn(fields, key)) &&
    hasOnly(fields, { ...needed, ...SHARED_OPTIONAL, ...checks.optional }) &&
    hasExactly(style, checks.style)
  );
}

/** Whether a value from outside changes at least one thing that may be changed of that kind of mark. */
export function isMarkPatch(kind: MarkKind, value: unknown): value is MarkPatch {
  if (!isRecord(value) || Object.keys(value).length === 0) return false;
  const { style, ...fields } = value;
  const checks = checksOf(kind);
  if (style !== undefined && !hasOnly(style, checks.style)) return false;
  return (
    Object.keys(fields).every((key) => !FIXED.includes(key)) &&
    hasOnly(fields, { ...SHARED, ...SHARED_OPTIONAL, ...checks.fields, ...checks.optional })
  );
}
