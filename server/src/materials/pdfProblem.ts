import { Problem } from '../http/problem.js';
import { PdfError } from './pdfReader.js';
import type { PdfFailure, PdfFault } from './pdfTask.js';

/** Why a document cannot be used, in a sentence that says what to do; anything else is left as it is. */
export function pdfProblem(error: PdfFailure, maxPages?: number): Problem;
export function pdfProblem(error: unknown, maxPages?: number): unknown;
export function pdfProblem(error: unknown, maxPages = 0): unknown {
  if (error instanceof Error && !(error instanceof PdfError)) return error;
  const { fault, pages } = error as PdfFailure;
  const sentences: Record<PdfFault, string> = {
    password:
      'This PDF is protected with a password. Please save a copy without a password and choose that one.',
    damaged:
      'This document is damaged and cannot be read. Please open it in another program, save or print it as PDF again, and choose that one.',
    empty: 'This file is empty. Please check the original and choose it again.',
    'too-many-pages': `These are ${pages} pages, and ${maxPages} can be brought in at once. Please choose some of them: in an open lesson, under “Pages of a document”.`,
    'no-such-pages': `This document has ${pages} pages. Please name those to take like this: 1-3, 7.`,
    'huge-page': `Page ${pages} of this document is more than 5 metres long, which is more than can be written on. Please print it as PDF on smaller paper and choose that, or leave the page out.`,
    'too-slow':
      'This document takes too long to read. Please print it as PDF again, or split it, and choose that one.',
  };
  return new Problem(422, fault, sentences[fault], { pages: pages ?? 0, maxPages });
}
