import type { PDFPage } from '@cantoo/pdf-lib';
import { PDFDict, PDFName } from '@cantoo/pdf-lib';
import type { Matrix } from '../geometry/matrix.js';
import { applyMatrix, inverse } from '../geometry/matrix.js';
import { geometryOf } from '../handout/originals.js';
import { pageToUserSpace } from '../handout/pageTransform.js';
import type { PageWords } from '../text/pageWords.js';
import { isMark } from '../marks/check.js';
import type { Mark } from '../marks/mark.js';
import type { MarkBody } from '../marks/markBody.js';
import { AnnotationFields } from './annotationFields.js';
import type { Placing } from './bodies.js';
import { BODIES } from './bodies.js';

/** What a mark has beside what it shows. */
export type MarkFrame = Pick<
  Mark,
  'id' | 'page' | 'author' | 'space' | 'order' | 'locked' | 'group' | 'createdAt'
>;

/**
 * Makes what has been written on a page of a PDF by others, ink, highlights, lines, shapes, typed text and notes (ISO
 * 32000-1 §12.5.6), marks that can be changed, lowest first, and takes it off the page. What cannot become marks stays.
 * With the words of the page, marked ones are glued to what they say.
 */
export function takeAnnotations(page: PDFPage, frame: () => MarkFrame, words?: PageWords): Mark[] {
  const annotations = page.node.Annots();
  if (!annotations) return [];
  const placing = { ...placingOf(page), words };
  const marks: Mark[] = [];
  for (let i = 0; i < annotations.size();) {
    const annotation = annotations.lookup(i);
    const own = annotation instanceof PDFDict ? marksOf(annotation, placing, frame) : [];
    marks.push(...own);
    if (own.length > 0 || (annotation instanceof PDFDict && isOrphan(annotation, page)))
      annotations.remove(i);
    else i += 1;
  }
  return marks;
}

function marksOf(annotation: PDFDict, placing: Placing, frame: () => MarkFrame): Mark[] {
  const fields = new AnnotationFields(annotation);
  const bodies = fields.isUnseen ? undefined : BODIES[fields.name('Subtype') ?? '']?.(fields, placing);
  const alt = null;
  const credit = fields.text('T').trim().slice(0, 120);
  const own = {
    ...(credit !== '' && { credit }),
    ...(fields.madeAt !== undefined && { createdAt: fields.madeAt }),
  };
  const marks = (bodies ?? []).map((body: MarkBody) => ({ ...frame(), alt, ...own, ...body }));
  // All of it or nothing: half of a drawing is worse than a drawing that cannot be changed.
  return marks.every(isMark) ? marks : [];
}

/** Whether it is the window of a note that is no longer there. */
function isOrphan(annotation: PDFDict, page: PDFPage): boolean {
  if (annotation.lookup(PDFName.of('Subtype')) !== PDFName.of('Popup')) return false;
  const parent = annotation.get(PDFName.of('Parent'));
  return parent !== undefined && page.node.Annots()!.indexOf(parent) === undefined;
}

function placingOf(page: PDFPage): Placing {
  const toPage: Matrix = inverse(pageToUserSpace(geometryOf(page)));
  const scale = Math.hypot(toPage[0], toPage[1]);
  const round = (value: number) => Math.round(value * 100) / 100;
  return {
    at: (x, y) => applyMatrix(toPage, x, y).map(round) as [number, number],
    length: (value) => round(value * scale),
  };
}
