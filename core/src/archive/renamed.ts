/**
 * The same value with ids in it by other names: strings that are an id, `student:` and `table:` before one, and keys.
 * Everything else, such as words that hold an id, stays.
 */
export function renamed<T>(value: T, ids: ReadonlyMap<string, string>): T {
  return walk(value, ids) as T;
}

function walk(value: unknown, ids: ReadonlyMap<string, string>): unknown {
  if (typeof value === 'string') return nameOf(value, ids);
  if (Array.isArray(value)) {
    // Points of ink are numbers by the thousand.
    if (typeof value[0] === 'number') return value;
    return value.map((each) => walk(each, ids));
  }
  if (typeof value !== 'object' || value === null) return value;
  return Object.fromEntries(
    Object.entries(value).map(([key, each]) => [ids.get(key) ?? key, walk(each, ids)]),
  );
}

function nameOf(text: string, ids: ReadonlyMap<string, string>): string {
  const known = ids.get(text);
  if (known !== undefined) return known;
  const [kind, id] = text.split(':', 2);
  const own = id !== undefined && (kind === 'student' || kind === 'table') ? ids.get(id) : undefined;
  return own === undefined ? text : `${kind}:${own}`;
}
