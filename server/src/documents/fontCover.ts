import { execFile } from 'node:child_process';
import { promisify } from 'node:util';

/** Numbers of characters, from and to. */
export type Range = readonly [number, number];

/** What is drawn without a letter of its own, or belongs to a font that comes with its document. */
const NEEDS_NONE = /^[\p{Z}\p{C}\p{M}\p{Variation_Selector}]$/u;

/** Those of some characters that no font on this computer has; none where that cannot be told. */
export async function lettersWithoutFont(letters: string): Promise<string> {
  const cover = await fontCover();
  if (!cover) return '';
  return [...letters].filter((letter) => !NEEDS_NONE.test(letter) && !covers(cover, letter)).join('');
}

/** All that the fonts have, by fontconfig's list (fc-list(1)); undefined where that is not installed. */
async function fontCover(): Promise<Range[] | undefined> {
  try {
    const options = { maxBuffer: 64_000_000, timeout: 10_000 };
    const { stdout } = await promisify(execFile)('fc-list', ['--format', '%{charset}\n'], options);
    return rangesIn(stdout);
  } catch {
    // Nothing is said of fonts where they cannot be listed.
    return undefined;
  }
}

/** Ranges in a list of hexadecimal numbers and pairs such as `20-7e a0`. */
export function rangesIn(list: string): Range[] {
  const parts = new Set(list.split(/\s+/).filter((part) => part !== ''));
  return [...parts].map((part) => {
    const [from, to = from] = part.split('-').map((number) => parseInt(number, 16));
    return [from!, to!] as const;
  });
}

function covers(ranges: readonly Range[], letter: string): boolean {
  const code = letter.codePointAt(0)!;
  return ranges.some(([from, to]) => code >= from && code <= to);
}
