/** Most words of a question that are looked for. */
const MOST_WORDS = 12;

/**
 * The words that are looked for, as they are compared: in small letters and without accents (Unicode NFKD, marks of
 * category Mn left out).
 */
export function searchWords(question: string): string[] {
  return (
    plain(question)
      .match(/[\p{L}\p{N}]+/gu)
      ?.slice(0, MOST_WORDS) ?? []
  );
}

/** Whether each of the words begins a word of a text. */
export function hasWords(text: string, words: readonly string[]): boolean {
  const there = searchable(text);
  return words.every((word) => there.some((one) => one.startsWith(word)));
}

/** Where words of a text begin with one of those that are looked for: from, to, in its letters. */
export function wordsFound(text: string, words: readonly string[]): [from: number, to: number][] {
  const found: [number, number][] = [];
  for (const { 0: word, index } of text.matchAll(/[\p{L}\p{N}\p{M}]+/gu))
    if (words.some((wanted) => plain(word).startsWith(wanted))) found.push([index, index + word.length]);
  return found;
}

/** The words of a text as they are compared. */
export function searchable(text: string): string[] {
  return plain(text).match(/[\p{L}\p{N}]+/gu) ?? [];
}

function plain(text: string): string {
  return text
    .normalize('NFKD')
    .replace(/\p{Mn}/gu, '')
    .toLowerCase();
}
