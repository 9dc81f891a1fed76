import type { Turns } from '../live/scene.js';

/** Whose turn it is. */
export function turnOf({ students, at }: Turns): string | undefined {
  return students[at % students.length];
}

/** The turn after one: of the next of those who are here; where nobody else is, it stays. */
export function turnAfter(turns: Turns, here: ReadonlySet<string>): Turns {
  const { students, at } = turns;
  for (let by = 1; by < students.length; by++)
    if (here.has(students[(at + by) % students.length]!))
      return { students, at: (at + by) % students.length };
  return turns;
}
