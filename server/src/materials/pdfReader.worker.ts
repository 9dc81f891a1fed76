import { MAX_PAGE_SIDE, pagesOfList, UNITS_PER_POINT } from '@doodla/core';
import type { PDFDocumentProxy } from 'pdfjs-dist';
import { serveTasks } from '../reading/serveTasks.js';
import { drawPdfPage, loadPdf } from './pdfFile.js';
import type { PdfAnswer, PdfFailure, PdfFault, PdfProgress, PdfTask, PictureWish } from './pdfTask.js';

const PROGRESS_STEP = 10;
/** Kept of one page; a page of small print has some 8,000. */
const MOST_LETTERS = 20_000;

serveTasks<PdfTask, PdfProgress>({ run, failureOf });

/** Thrown where a document is readable, but no use. */
class Fault extends Error {
  constructor(
    readonly fault: PdfFault,
    readonly pages?: number,
  ) {
    super(fault);
  }
}

type Ask = (progress: PdfProgress) => Promise<unknown>;

async function run(task: PdfTask, ask: Ask): Promise<PdfAnswer> {
  const loading = await loadPdf(task.path);
  try {
    const doc = await loading.promise;
    if (doc.numPages === 0) throw new Fault('empty');
    if (task.kind === 'sizes') return await readSizes(doc, task, ask);
    if (task.kind === 'letters') return await readLetters(doc, task.pages);
    if (task.kind === 'words') return await readWords(doc);
    if (task.kind === 'picture') return await drawPicture(doc, task);
    return { kind: 'count', count: doc.numPages };
  } finally {
    await loading.destroy();
  }
}

type SizesTask = Extract<PdfTask, { kind: 'sizes' }>;

async function readSizes(doc: PDFDocumentProxy, task: SizesTask, ask: Ask): Promise<PdfAnswer> {
  const count = doc.numPages;
  const chosen = pagesOfList(task.pages, count);
  if (!chosen) throw new Fault('no-such-pages', count);
  if (chosen.length > task.maxPages) throw new Fault('too-many-pages', chosen.length);
  const pages = [];
  for (const [i, index] of chosen.entries()) {
    const page = await doc.getPage(index + 1);
    const { width, height } = page.getViewport({ scale: UNITS_PER_POINT });
    if (!(width >= 1 && height >= 1)) throw new Fault('damaged');
    if (Math.max(width, height) > MAX_PAGE_SIDE) throw new Fault('huge-page', index + 1);
    pages.push({ index, width: round(width), height: round(height) });
    page.cleanup();
    if ((i + 1) % PROGRESS_STEP === 0) await ask({ done: i + 1, total: chosen.length });
  }
  return { kind: 'sizes', count, pages };
}

async function readLetters(doc: PDFDocumentProxy, pages: number): Promise<PdfAnswer> {
  const letters = new Set<string>();
  for (let n = 1; n <= Math.min(doc.numPages, pages); n++) {
    const page = await doc.getPage(n);
    const { items } = await page.getTextContent();
    for (const item of items) if ('str' in item) for (const letter of item.str) letters.add(letter);
    page.cleanup();
  }
  return { kind: 'letters', letters: [...letters].join('') };
}

/** Words as they stand in the document, a space for each end of a line; more than `MOST_LETTERS` of a page are left out. */
async function readWords(doc: PDFDocumentProxy): Promise<PdfAnswer> {
  const pages: string[] = [];
  for (let n = 1; n <= doc.numPages; n++) {
    const page = await doc.getPage(n);
    const { items } = await page.getTextContent();
    const parts = items.map((item) => ('str' in item ? item.str + (item.hasEOL ? ' ' : '') : ''));
    pages.push(parts.join('').replace(/\s+/g, ' ').trim().slice(0, MOST_LETTERS));
    page.cleanup();
  }
  return { kind: 'words', pages };
}

async function drawPicture(doc: PDFDocumentProxy, { index, ...wish }: PictureWish): Promise<PdfAnswer> {
  if (index >= doc.numPages) throw new Fault('no-such-pages', doc.numPages);
  return { kind: 'picture', bytes: await drawPdfPage(await doc.getPage(index + 1), wish) };
}

const round = (value: number) => Math.round(value * 100) / 100;

function failureOf(error: unknown): PdfFailure {
  if (error instanceof Fault) return { fault: error.fault, pages: error.pages };
  return { fault: error instanceof Error && error.name === 'PasswordException' ? 'password' : 'damaged' };
}
