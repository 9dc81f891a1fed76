/** Longest name of a student, and most names of a group. */
export const MAX_NAME = 40;
export const MAX_NAMES = 200;

/**
 * The names of a pasted class list: one a line, or one list on one line parted by commas or semicolons. Numbers and
 * bullets before names go, columns of a table are joined, and `Fenn, Ada` on a line of its own is Ada Fenn. Who has
 * the name of somebody before gets a number, so that all can be told apart.
 */
export function namesIn(pasted: string): string[] {
  const lines = pasted.split(/\r?\n/).map(cleaned).filter(Boolean);
  return namesOfLines(lines.length === 1 ? lines[0]!.split(/[,;]/) : lines);
}

/** The names of a list that has one a line, cleaned as {@link namesIn} says. */
export function namesOfLines(lines: readonly string[]): string[] {
  const names = lines.map((line) => firstNameFirst(cleaned(line)));
  const taken = new Set<string>();
  return names
    .filter(Boolean)
    .slice(0, MAX_NAMES)
    .map((name) => unlike(taken, name.slice(0, MAX_NAME).trim()));
}

/** Whether two names are the same to whoever reads them: capitals do not count, accents do. */
export function isSameName(a: string, b: string): boolean {
  return a.localeCompare(b, undefined, { sensitivity: 'accent' }) === 0;
}

function cleaned(line: string): string {
  return line
    .replace(/^[\s\d.)\-*•]+/u, '')
    .replace(/[\t;]+\s*/g, ' ')
    .replace(/\s+/g, ' ')
    .trim();
}

function firstNameFirst(line: string): string {
  const [last, first, ...more] = line.split(',').map((part) => part.trim());
  return first && more.length === 0 ? `${first} ${last}` : line.replace(/,\s*/g, ' ').trim();
}

function unlike(taken: Set<string>, name: string): string {
  let other = name;
  for (let n = 2; taken.has(other.toLowerCase()); n += 1) {
    const end = ` ${n}`;
    other = name.slice(0, MAX_NAME - end.length) + end;
  }
  taken.add(other.toLowerCase());
  return other;
}
