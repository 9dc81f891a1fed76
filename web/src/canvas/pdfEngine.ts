import workerUrl from 'pdfjs-dist/legacy/build/pdf.worker.min.mjs?url';
import { getDocument, GlobalWorkerOptions, PDFWorker } from 'pdfjs-dist/legacy/build/pdf.mjs';
import type { PDFDocumentLoadingTask } from 'pdfjs-dist/legacy/build/pdf.mjs';
import { authorised } from '../api/http';

GlobalWorkerOptions.workerSrc = workerUrl;

let worker: PDFWorker | undefined;

/** Starts the engine's worker ahead of the first document. */
export function warmUp(): void {
  worker ??= new PDFWorker();
}

/** Documents that are being opened for whoever asks next. */
const preloaded = new Map<string, PDFDocumentLoadingTask>();

/** Starts to open a stored PDF that will be asked for in a moment. */
export function preload(material: string): void {
  preloaded.set(material, load(material));
}

/** Opens a stored PDF; large ones are read in parts as they are needed. */
export function openPdf(material: string, token?: string): PDFDocumentLoadingTask {
  const task = preloaded.get(material) ?? load(material, token);
  preloaded.delete(material);
  return task;
}

function load(material: string, token?: string): PDFDocumentLoadingTask {
  warmUp();
  const assets = new URL('/pdfjs/', location.href).href;
  return getDocument({
    url: `/api/materials/${material}/file`,
    httpHeaders: authorised(token),
    worker: worker!,
    cMapUrl: `${assets}cmaps/`,
    standardFontDataUrl: `${assets}standard_fonts/`,
    wasmUrl: `${assets}wasm/`,
    iccUrl: `${assets}iccs/`,
    isEvalSupported: false,
    enableXfa: false,
    // Fonts that a file only names are taken from those shipped, so that it looks alike on every machine.
    useSystemFonts: false,
    // Parts are fetched when wanted, not the whole file at once.
    disableAutoFetch: true,
    rangeChunkSize: 262144,
  });
}
