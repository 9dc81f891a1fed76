import { createCanvas } from '@napi-rs/canvas';
import { UNITS_PER_POINT } from '@doodla/core';
import { readFile } from 'node:fs/promises';
import { createRequire } from 'node:module';
import { dirname, join } from 'node:path';
import { parentPort } from 'node:worker_threads';
import type { PDFDocumentProxy } from 'pdfjs-dist';
import { getDocument, VerbosityLevel } from 'pdfjs-dist/legacy/build/pdf.mjs';
import { standBehind } from '../reading/behind.js';
import type { FromWorker } from '../reading/limitedWorker.js';
import type { PdfAnswer, PdfFault, PdfProgress, PdfTask } from './pdfTask.js';

const PROGRESS_STEP = 10;
const assets = dirname(createRequire(import.meta.url).resolve('pdfjs-dist/package.json'));

standBehind();
parentPort?.on('message', (task: PdfTask | { reply: unknown }) => {
  if ('reply' in task) return;
  run(task).then(
    (done) => say({ done }),
    (error: unknown) => say({ failed: faultOf(error) }),
  );
});

function say(message: FromWorker<PdfAnswer, PdfProgress>): void {
  parentPort?.postMessage(message);
}

/** Thrown where a document is readable, but no use. */
class Fault extends Error {
  constructor(readonly fault: PdfFault) {
    super(fault);
  }
}

async function run(task: PdfTask): Promise<PdfAnswer> {
  const loading = getDocument({
    data: new Uint8Array(await readFile(task.path)),
    cMapUrl: join(assets, 'cmaps/'),
    standardFontDataUrl: join(assets, 'standard_fonts/'),
    wasmUrl: join(assets, 'wasm/'),
    isEvalSupported: false,
    verbosity: VerbosityLevel.ERRORS,
  });
  try {
    const doc = await loading.promise;
    return await (task.kind === 'sizes' ? readSizes(doc, task.maxPages) : renderCover(doc, task.width));
  } finally {
    await loading.destroy();
  }
}

async function readSizes(doc: PDFDocumentProxy, maxPages: number): Promise<PdfAnswer> {
  if (doc.numPages === 0) throw new Fault('empty');
  if (doc.numPages > maxPages) throw new Fault('too-many-pages');
  const pages: { width: number; height: number }[] = [];
  for (let n = 1; n <= doc.numPages; n++) {
    const page = await doc.getPage(n);
    const { width, height } = page.getViewport({ scale: UNITS_PER_POINT });
    if (!(width >= 1 && height >= 1)) throw new Fault('damaged');
    pages.push({ width: round(width), height: round(height) });
    page.cleanup();
    if (n % PROGRESS_STEP === 0) say({ note: { done: n, total: doc.numPages } });
  }
  return { kind: 'sizes', pages };
}

async function renderCover(doc: PDFDocumentProxy, width: number): Promise<PdfAnswer> {
  const page = await doc.getPage(1);
  const viewport = page.getViewport({ scale: width / page.getViewport({ scale: 1 }).width });
  const canvas = createCanvas(Math.ceil(viewport.width), Math.ceil(Math.min(viewport.height, width * 2)));
  await page.render({ canvas: canvas as never, viewport }).promise;
  return { kind: 'cover', png: await canvas.encode('png') };
}

const round = (value: number) => Math.round(value * 100) / 100;

function faultOf(error: unknown): PdfFault {
  if (error instanceof Fault) return error.fault;
  return error instanceof Error && error.name === 'PasswordException' ? 'password' : 'damaged';
}
