import type { Page, PlacedWord, WordsReply } from '@doodla/core';
import { PageWords } from '@doodla/core';
import type { PDFPageProxy } from 'pdfjs-dist/legacy/build/pdf.mjs';
import { fetchStored } from '../api/http';
import { wordsOfPdf } from './pdfWords';
import { t } from '../words';

/** The words of a page: those of its original, or those that have been read on a picture of it. */
export async function findWords(
  page: Page,
  original: PDFPageProxy | undefined,
  token: string | undefined,
): Promise<PageWords> {
  const own = original && (await wordsOfPdf(original));
  if (own && !own.isEmpty) return own;
  const address = wordsAddress(page);
  if (address === undefined) return new PageWords([]);
  const response = await fetchStored(address, { token }, t('canvas.theWordsOfThisPage'));
  const { words } = (await response.json()) as WordsReply;
  return wordsOnPage(page, words ?? []);
}

/** Where the words that are read on a page are kept; undefined for pages on which none are read. */
export function wordsAddress({ surface }: Page): string | undefined {
  if (surface.kind === 'pdf') return `/api/materials/${surface.material}/words/${surface.index}`;
  if (surface.kind === 'picture') return `/api/pictures/${surface.material}/words`;
  return undefined;
}

/** Words that were read, told as parts of a page, where they are on it. */
export function wordsOnPage(page: Page, words: readonly PlacedWord[]): PageWords {
  return new PageWords(
    words.map(({ text, x, y, width, height }) => ({
      text,
      x: x * page.width,
      y: y * page.height,
      width: width * page.width,
      height: height * page.height,
    })),
  );
}
