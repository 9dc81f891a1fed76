import { PDFDocument, StandardFonts } from '@cantoo/pdf-lib';
import fontkit from '@cantoo/fontkit';
import type { Rect } from '@doodla/core';
import type { Pictured, PicturePiece } from '../shared/messages';

/** CSS pixels to a PDF's points (ISO 32000-1 §8.3.2.3: 72 to the inch; CSS Values 3: 96). */
const POINTS = 72 / 96;

/** A piece of a picture, read. */
export interface Sheet {
  canvas: HTMLCanvasElement;
  /** CSS pixels. */
  width: number;
  height: number;
  words: PicturePiece['words'];
}

/** Reads the pieces of a picture. */
export function sheetsOf({ width, pieces }: Pictured): Promise<Sheet[]> {
  return Promise.all(
    pieces.map(async ({ data, height, words }) => {
      const bitmap = await createImageBitmap(await (await fetch(data)).blob());
      const canvas = document.createElement('canvas');
      Object.assign(canvas, { width: bitmap.width, height: bitmap.height });
      canvas.getContext('2d')!.drawImage(bitmap, 0, 0);
      bitmap.close();
      return { canvas, width, height, words };
    }),
  );
}

/** A part of a sheet, as shares of its sides. */
export function cropped({ canvas, width, height, words }: Sheet, part: Rect): Sheet {
  const cut = document.createElement('canvas');
  const [w, h] = [
    Math.max(1, Math.round(part.width * canvas.width)),
    Math.max(1, Math.round(part.height * canvas.height)),
  ];
  Object.assign(cut, { width: w, height: h });
  cut.getContext('2d')!.drawImage(canvas, -part.x * canvas.width, -part.y * canvas.height);
  const [left, top] = [part.x * width, part.y * height];
  const size = { width: part.width * width, height: part.height * height };
  const inside = words
    .map((word) => ({ ...word, x: word.x - left, y: word.y - top }))
    .filter(
      ({ x, y, ...word }) =>
        x >= 0 && y >= 0 && x + word.width <= size.width && y + word.height <= size.height,
    );
  return { canvas: cut, ...size, words: inside };
}

export function pngOf({ canvas }: Sheet): Promise<Blob> {
  return new Promise((resolve, reject) =>
    canvas.toBlob((blob) => (blob ? resolve(blob) : reject(new Error('no picture'))), 'image/png'),
  );
}

/** The sheets as pages of a PDF, with their words under the picture, so that they are found, marked and read aloud. */
export async function pdfOf(sheets: readonly Sheet[], title: string, letters: ArrayBuffer): Promise<Blob> {
  const pdf = await PDFDocument.create();
  pdf.setTitle(title, { showInWindowTitleBar: true });
  pdf.registerFontkit(fontkit);
  // Without these letters the words of most languages of Europe are still found.
  const font = await pdf
    .embedFont(letters, { subset: true })
    .catch(() => pdf.embedFont(StandardFonts.Helvetica));
  const known = new Set(font.getCharacterSet());
  for (const sheet of sheets) {
    const picture = await pdf.embedPng(await (await pngOf(sheet)).arrayBuffer());
    const [width, height] = [sheet.width * POINTS, sheet.height * POINTS];
    const page = pdf.addPage([width, height]);
    for (const word of sheet.words) {
      const text = [...word.text].filter((letter) => known.has(letter.codePointAt(0)!)).join('');
      if (text === '') continue;
      const size = word.height * POINTS * 0.8;
      page.drawText(text, {
        x: word.x * POINTS,
        y: height - (word.y + word.height * 0.8) * POINTS,
        size,
        font,
      });
    }
    page.drawImage(picture, { x: 0, y: 0, width, height });
  }
  return new Blob([await pdf.save()], { type: 'application/pdf' });
}
