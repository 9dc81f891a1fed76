/** What a class is kept under. */
export interface KeptName {
  /** The group of students, such as a form; may be empty. */
  group: string;
  theme: string;
  when: string;
}

const KEY = 'doodla.groups';
const MOST = 12;

/** One line of the parts that are given. */
export function titleOf({ group, theme, when }: KeptName): string {
  return [group, theme, when]
    .map((part) => part.trim())
    .filter((part) => part !== '')
    .join(', ');
}

/** Groups taught from this browser, the last one first. */
export function knownGroups(): string[] {
  return JSON.parse(localStorage.getItem(KEY) ?? '[]') as string[];
}

export function rememberGroup(group: string): void {
  const name = group.trim();
  if (name === '') return;
  const others = knownGroups().filter((known) => known !== name);
  localStorage.setItem(KEY, JSON.stringify([name, ...others].slice(0, MOST)));
}
