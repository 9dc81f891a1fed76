import fontkit from '@cantoo/fontkit';
import type { PDFFont, PDFPage, RGB } from '@cantoo/pdf-lib';
import { PDFDocument, rgb } from '@cantoo/pdf-lib';
import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';

const require = createRequire(import.meta.url);

export const COLOURS = {
  ink: rgb(0.11, 0.16, 0.14),
  soft: rgb(0.35, 0.42, 0.38),
  water: rgb(0.72, 0.85, 0.92),
  steel: rgb(0.28, 0.36, 0.42),
  stone: rgb(0.78, 0.72, 0.62),
  pull: rgb(0.72, 0.2, 0.12),
  push: rgb(0.05, 0.35, 0.6),
  line: rgb(0.75, 0.78, 0.74),
};

/** A page being drawn on in points, with y growing downwards as on screen. */
export class Sheet {
  constructor(
    private readonly page: PDFPage,
    private readonly fonts: { regular: PDFFont; bold: PDFFont },
  ) {}

  get width(): number {
    return this.page.getWidth();
  }

  get height(): number {
    return this.page.getHeight();
  }

  text(
    text: string,
    x: number,
    y: number,
    size: number,
    options: { bold?: boolean; colour?: RGB } = {},
  ): void {
    this.page.drawText(text, {
      x,
      y: this.height - y,
      size,
      font: options.bold ? this.fonts.bold : this.fonts.regular,
      color: options.colour ?? COLOURS.ink,
    });
  }

  lines(lines: readonly string[], x: number, y: number, size: number, options: { colour?: RGB } = {}): void {
    lines.forEach((line, i) => this.text(line, x, y + i * size * 1.5, size, options));
  }

  line(x0: number, y0: number, x1: number, y1: number, thickness = 2, color: RGB = COLOURS.ink): void {
    this.page.drawLine({
      start: { x: x0, y: this.height - y0 },
      end: { x: x1, y: this.height - y1 },
      thickness,
      color,
    });
  }

  box(x: number, y: number, width: number, height: number, fill: RGB | undefined, border?: RGB): void {
    this.page.drawRectangle({
      x,
      y: this.height - y - height,
      width,
      height,
      ...(fill && { color: fill }),
      ...(border && { borderColor: border, borderWidth: 1.2 }),
    });
  }

  /** An SVG path with its origin at the top left of the page. */
  path(d: string, stroke: RGB, thickness: number, fill?: RGB): void {
    this.page.drawSvgPath(d, {
      x: 0,
      y: this.height,
      borderColor: stroke,
      borderWidth: thickness,
      ...(fill && { color: fill }),
    });
  }

  arrow(x0: number, y0: number, x1: number, y1: number, colour: RGB): void {
    const angle = Math.atan2(y1 - y0, x1 - x0);
    this.line(x0, y0, x1, y1, 4, colour);
    for (const turn of [0.5, -0.5]) {
      this.line(x1, y1, x1 - 14 * Math.cos(angle + turn), y1 - 14 * Math.sin(angle + turn), 4, colour);
    }
  }
}

/** Makes a PDF of pages of one size (points); each is drawn by a function of its own. */
export async function makeDocument(
  title: string,
  size: [number, number],
  pages: readonly ((sheet: Sheet) => void)[],
): Promise<Uint8Array> {
  const doc = await PDFDocument.create();
  doc.registerFontkit(fontkit);
  doc.setTitle(title);
  // Fixed dates: the same script makes the same file.
  doc.setCreationDate(new Date(0));
  doc.setModificationDate(new Date(0));
  const load = (name: string) =>
    doc.embedFont(readFileSync(require.resolve(`@expo-google-fonts/andika/${name}.ttf`)), { subset: true });
  const fonts = { regular: await load('Andika_400Regular'), bold: await load('Andika_700Bold') };
  for (const draw of pages) draw(new Sheet(doc.addPage(size), fonts));
  return doc.save();
}
