/** What stands for somebody who has no letters in their name. */
const NOBODY = '?';

/**
 * Initials in place of names: `Ada Lovelace` becomes `A. L.`, a second one with the same `A. L. 2`, so that people can still
 * be told apart. By id; the same people always get the same ones.
 */
export function initialsFor(people: readonly { id: string; name: string }[]): ReadonlyMap<string, string> {
  const counts = new Map<string, number>();
  const byId = [...people].sort((a, b) => (a.id < b.id ? -1 : 1));
  return new Map(
    byId.map(({ id, name }) => {
      const plain = plainInitials(name);
      const count = (counts.get(plain) ?? 0) + 1;
      counts.set(plain, count);
      return [id, count === 1 ? plain : `${plain} ${count}`];
    }),
  );
}

function plainInitials(name: string): string {
  const letters = name.split(/[\s\-–]+/u).flatMap((word) => {
    const first = /[\p{L}\p{N}]/u.exec(word)?.[0] ?? '';
    // A letter may become two, such as ß.
    return [...first.toLocaleUpperCase()].slice(0, 1);
  });
  return letters.length === 0 ? NOBODY : letters.map((letter) => `${letter}.`).join(' ');
}
