import type { PlacedWord } from '@doodla/core';
import { PageWords, UNITS_PER_POINT } from '@doodla/core';
import type { PDFPageProxy } from 'pdfjs-dist/legacy/build/pdf.mjs';

/** A run of text as pdf.js tells it: its own space to that of the page, and its length there. */
interface Run {
  str: string;
  transform: number[];
  width: number;
  height: number;
}

const measure = document.createElement('canvas').getContext('2d')!;
/** The part of a letter's height that lies below its line. */
const BELOW = 0.22;

/** The words of a page of a PDF and where they lie. */
export async function wordsOfPdf(page: PDFPageProxy): Promise<PageWords> {
  const { items } = await page.getTextContent();
  const { transform } = page.getViewport({ scale: UNITS_PER_POINT });
  return new PageWords(items.flatMap((item) => ('str' in item ? wordsOfRun(item as Run, transform) : [])));
}

/** Words of a run; how far each goes along it is told by the widths of its letters in a common face. */
function wordsOfRun({ str, transform, width, height }: Run, toPage: readonly number[]): PlacedWord[] {
  const [a, b, c, d, e, f] = transform as [number, number, number, number, number, number];
  const [size, rise] = [Math.hypot(a, b), Math.hypot(c, d) || height];
  if (size === 0 || width === 0) return [];
  const whole = measure.measureText(str).width;
  const words: PlacedWord[] = [];
  for (const { 0: text, index } of str.matchAll(/\S+/g)) {
    const along = (to: number) => (measure.measureText(str.slice(0, to)).width / whole) * width;
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
