import type { ReadingLanguage } from '@doodla/core';
import { createCanvas, loadImage } from '@napi-rs/canvas';
import { createRequire } from 'node:module';
import { dirname, join } from 'node:path';
import type { Worker } from 'tesseract.js';
import { createWorker, OEM } from 'tesseract.js';
import { drawPdfPage, loadPdf } from '../materials/pdfFile.js';
import { serveTasks } from '../reading/serveTasks.js';
import type { ReadingProgress, ReadingTask, ReadWord } from './readingTask.js';

/** Width at which a page is read, pixels: some 250 to the inch of a sheet of paper. */
const WIDTH = 2000;
/** How high a page that is read may be, of its width. */
const TALLEST = 3;
/** Least confidence in a word, of 100, and most words of a page. */
const SURE = 40;
const MOST = 5000;

const require = createRequire(import.meta.url);
type Tell = (progress: ReadingProgress) => Promise<unknown>;

let reader: { language: ReadingLanguage; worker: Worker; tell: Tell } | undefined;

serveTasks<ReadingTask, ReadingProgress>({ run, failureOf: String });

async function run({ path, page, language }: ReadingTask, tell: Tell): Promise<ReadWord[]> {
  const picture = page === null ? await drawnPicture(path) : await drawnPage(path, page);
  const worker = await readerFor(language, tell);
  const { data } = await worker.recognize(picture.png, {}, { blocks: true, text: false });
  const lines = (data.blocks ?? []).flatMap(({ paragraphs }) => paragraphs.flatMap((each) => each.lines));
  const words = lines.flatMap((line) => line.words).filter(({ confidence }) => confidence >= SURE);
  return words.slice(0, MOST).map(({ text, bbox: { x0, y0, x1, y1 } }) => ({
    text: text.slice(0, 100),
    x: part(x0, picture.width),
    y: part(y0, picture.height),
    width: part(x1 - x0, picture.width),
    height: part(y1 - y0, picture.height),
  }));
}

async function readerFor(language: ReadingLanguage, tell: Tell): Promise<Worker> {
  if (reader?.language === language) {
    reader.tell = tell;
    return reader.worker;
  }
  await reader?.worker.terminate();
  const data = dirname(require.resolve(`@tesseract.js-data/${language}/package.json`));
  const worker = await createWorker(language, OEM.LSTM_ONLY, {
    langPath: join(data, '4.0.0_best_int'),
    cacheMethod: 'none',
    logger: ({ status, progress }) => {
      // Whoever asked may be gone, and this process with them.
      if (status === 'recognizing text') reader?.tell({ part: progress }).catch(() => undefined);
    },
  });
  reader = { language, worker, tell };
  return worker;
}

interface Drawn {
  png: Buffer;
  width: number;
  height: number;
}

async function drawnPage(path: string, index: number): Promise<Drawn> {
  const loading = await loadPdf(path);
  try {
    const doc = await loading.promise;
    const page = await doc.getPage(index + 1);
    const size = page.getViewport({ scale: 1 });
    const height = (WIDTH / size.width) * size.height;
    return {
      png: await drawPdfPage(page, { width: WIDTH, tallest: TALLEST, type: 'png' }),
      width: WIDTH,
      height,
    };
  } finally {
    await loading.destroy();
  }
}

async function drawnPicture(path: string): Promise<Drawn> {
  const image = await loadImage(path);
  const height = Math.round((WIDTH / image.width) * image.height);
  const canvas = createCanvas(WIDTH, Math.min(height, WIDTH * TALLEST));
  const ctx = canvas.getContext('2d');
  ctx.fillStyle = '#ffffff';
  ctx.fillRect(0, 0, canvas.width, canvas.height);
  ctx.drawImage(image, 0, 0, WIDTH, height);
  return { png: await canvas.encode('png'), width: WIDTH, height };
}

/** A part of a whole, to a tenth of a thousandth. */
function part(value: number, whole: number): number {
  return Math.round((value / whole) * 1e4) / 1e4;
}
