import { createCanvas } from '@napi-rs/canvas';
import { UNITS_PER_POINT } from '@doodla/core';
import { readFile } from 'node:fs/promises';
import { createRequire } from 'node:module';
import { dirname, join } from 'node:path';
import { parentPort } from 'node:worker_threads';
import type { PDFDocumentProxy } from 'pdfjs-dist';
import { getDocument, VerbosityLevel } from 'pdfjs-dist/legacy/build/pdf.mjs';
import type { PdfAnswer, PdfFault, PdfTask } from './pdfTask.js';

const PROGRESS_STEP = 10;
const assets = dirname(createRequire(import.meta.url).resolve('pdfjs-dist/package.json'));

parentPort?.on('message', (task: PdfTask) => {
  run(task).catch((error: unknown) => answer({ kind: 'failed', fault: faultOf(error) }));
});

function answer(message: PdfAnswer): void {
  parentPort?.postMessage(message);
}

async function run(task: PdfTask): Promise<void> {
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
    if (task.kind === 'sizes') await readSizes(doc, task.maxPages);
    else await renderCover(doc, task.width);
  } finally {
    await loading.destroy();
  }
}

async function readSizes(doc: PDFDocumentProxy, maxPages: number): Promise<void> {
  if (doc.numPages === 0) return answer({ kind: 'failed', fault: 'empty' });
  if (doc.numPages > maxPages) return answer({ kind: 'failed', fault: 'too-many-pages' });
  const pages: { width: number; height: number }[] = [];
  for (let n = 1; n <= doc.numPages; n++) {
    const page = await doc.getPage(n);
    const { width, height } = page.getViewport({ scale: UNITS_PER_POINT });
    if (!(width >= 1 && height >= 1)) return answer({ kind: 'failed', fault: 'damaged' });
    pages.push({ width: round(width), height: round(height) });
    page.cleanup();
    if (n % PROGRESS_STEP === 0) answer({ kind: 'progress', done: n, total: doc.numPages });
  }
  answer({ kind: 'sizes', pages });
}

async function renderCover(doc: PDFDocumentProxy, width: number): Promise<void> {
  const page = await doc.getPage(1);
  const viewport = page.getViewport({ scale: width / page.getViewport({ scale: 1 }).width });
  const canvas = createCanvas(Math.ceil(viewport.width), Math.ceil(Math.min(viewport.height, width * 2)));
  await page.render({ canvas: canvas as never, viewport }).promise;
  answer({ kind: 'cover', png: await canvas.encode('png') });
}

const round = (value: number) => Math.round(value * 100) / 100;

function faultOf(error: unknown): PdfFault {
  return error instanceof Error && error.name === 'PasswordException' ? 'password' : 'damaged';
}
