import { textWidth } from './layout.js';
import type { PlacedWord } from './pageWords.js';

/** A run of text as pdf.js tells it: its own space to that of the page, and its length there. */
interface Run {
  str: string;
  transform: readonly number[];
  width: number;
  height: number;
}

/** The part of a letter's height that lies below its line. */
const BELOW = 0.22;

/** The words of a page of a PDF and where they lie, from the items that pdf.js reads on it and its map to page units. */
export function wordsOfRuns(items: readonly object[], toPage: readonly number[]): PlacedWord[] {
  return items.flatMap((item) => ('str' in item ? wordsOfRun(item as Run, toPage) : []));
}

/** Words of a run; how far each goes along it is told by the widths of its letters in a common face. */
function wordsOfRun({ str, transform, width, height }: Run, toPage: readonly number[]): PlacedWord[] {
  const [a, b, c, d, e, f] = transform as [number, number, number, number, number, number];
  const [size, rise] = [Math.hypot(a, b), Math.hypot(c, d) || height];
  if (size === 0 || width === 0) return [];
  const whole = widthOf(str);
  const words: PlacedWord[] = [];
  for (const { 0: text, index } of str.matchAll(/\S+/g)) {
    const along = (to: number) => (widthOf(str.slice(0, to)) / whole) * width;
    const corners = [along(index), along(index + text.length)].flatMap((x) =>
      [-BELOW * rise, (1 - BELOW) * rise].map((y) => {
        const [px, py] = [(a / size) * x + (c / rise) * y + e, (b / size) * x + (d / rise) * y + f];
        return [
          toPage[0]! * px + toPage[2]! * py + toPage[4]!,
          toPage[1]! * px + toPage[3]! * py + toPage[5]!,
        ] as const;
      }),
    );
    const [xs, ys] = [corners.map(([x]) => x), corners.map(([, y]) => y)];
    const [x, y] = [Math.min(...xs), Math.min(...ys)];
    words.push({ text, x, y, width: Math.max(...xs) - x, height: Math.max(...ys) - y });
  }
  return words;
}

const widthOf = (text: string) => textWidth(text, 'andika', 1);
