import type { TextPart, TextStyle } from '../../src/index.js';

/** How each letter of a text of `length` units looks, by what is said of its parts. */
export function looksOf(style: TextStyle, parts: readonly TextPart[], length: number): string[] {
  return Array.from({ length }, (_, i) => {
    const part = parts.find(({ from, to }) => from <= i && i < to);
    const { bold, italic, underline, colour, scale } = { ...style, scale: 1, ...part };
    return [bold, italic, underline, colour, scale].join();
  });
}
