import { PDFDocument } from '@cantoo/pdf-lib';
import { takeAnnotations } from '@doodla/core/pdf-annotations';
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
  const doc = await PDFDocument.load(await readFile(path), { password: '', updateMetadata: false });
  const pages = doc
    .getPages()
    .map((page, index) => ({ index, marks: takeAnnotations(page, () => NOBODY) }))
    .filter(({ marks }) => marks.length > 0);
  if (pages.length > 0)
    await writeFile(out, await doc.save({ addDefaultPage: false, updateFieldAppearances: false }));
  return pages;
}
