export type Check = (value: unknown) => boolean;
export type Checks = Record<string, Check>;

export function isRecord(value: unknown): value is Record<string, unknown> {
  return typeof value === 'object' && value !== null && !Array.isArray(value);
}

/** Whether a value from outside has all of these fields and no others. */
export function hasExactly(value: unknown, checks: Checks): boolean {
  return (
    isRecord(value) && Object.keys(value).length === Object.keys(checks).length && hasOnly(value, checks)
  );
}

/** Whether a value from outside has some of these fields and no others. */
export function hasOnly(value: unknown, checks: Checks): boolean {
  return (
    isRecord(value) &&
    Object.entries(value).every(([key, field]) => Object.hasOwn(checks, key) && checks[key]!(field))
  );
}
