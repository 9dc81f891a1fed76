import { PDFDocument } from '@cantoo/pdf-lib';
import { PageWords, UNITS_PER_POINT, wordsOfRuns } from '@doodla/core';
import { takeAnnotations } from '@doodla/core/pdf-annotations';
import type { PDFDocumentProxy } from 'pdfjs-dist';
import { getDocument } from 'pdfjs-dist/legacy/build/pdf.mjs';
import { readFile, writeFile } from 'node:fs/promises';
import { serveTasks } from '../reading/serveTasks.js';
import type { AnnotatedPage, AnnotationsTask } from './annotationsTask.js';

/** Filled in by whoever puts the marks somewhere. */
const NOBODY = {
  id: 'new',
  page: 'new',
  author: 'new',
  space: 'class',
  order: 'a0',
  locked: false,
  group: null,
  createdAt: 0,
} as const;

serveTasks<AnnotationsTask, never>({ run, failureOf: String });

async function run({ path, out }: AnnotationsTask): Promise<AnnotatedPage[]> {
  const bytes = await readFile(path);
  const doc = await PDFDocument.load(bytes, { password: '', updateMetadata: false });
  const read = await getDocument({ data: new Uint8Array(bytes), password: '', verbosity: 0 }).promise;
  const annotated: AnnotatedPage[] = [];
  for (const [index, page] of doc.getPages().entries()) {
    if ((page.node.Annots()?.size() ?? 0) === 0) continue;
    const marks = takeAnnotations(page, () => NOBODY, await wordsOn(read, index));
    if (marks.length > 0) annotated.push({ index, marks });
  }
  await read.destroy();
  if (annotated.length > 0)
    await writeFile(out, await doc.save({ addDefaultPage: false, updateFieldAppearances: false }));
  return annotated;
}

async function wordsOn(doc: PDFDocumentProxy, index: number): Promise<PageWords> {
  const page = await doc.getPage(index + 1);
  const { items } = await page.getTextContent();
  const { transform } = page.getViewport({ scale: UNITS_PER_POINT });
  return new PageWords(wordsOfRuns(items, transform));
}
