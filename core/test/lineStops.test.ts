import { PDFDocument, StandardFonts, rgb } from '@cantoo/pdf-lib';
import { execFileSync } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { PNG } from 'pngjs';
import { afterAll, describe, expect, it } from 'vitest';
import { greyFrame, lineStops } from '../src/focus/index.js';

const folder = mkdtempSync(join(tmpdir(), 'doodla-stops-'));
afterAll(() => rmSync(folder, { recursive: true, force: true }));

/** A page of text lines of different sizes, as poppler draws it, and where poppler says that its lines are. */
async function page(sizes: readonly number[], dark = false) {
  const doc = await PDFDocument.create();
  const font = await doc.embedFont(StandardFonts.Helvetica);
  const sheet = doc.addPage([600, 800]);
  if (dark) sheet.drawRectangle({ x: 0, y: 0, width: 600, height: 800, color: rgb(0.1, 0.1, 0.15) });
  const color = dark ? rgb(0.95, 0.95, 0.9) : rgb(0, 0, 0);
  let y = 740;
  for (const size of sizes) {
    sheet.drawText('A bridge carries load', { x: 50, y, size, font, color });
    y -= size * 1.9;
  }
  const path = join(folder, 'page.pdf');
  writeFileSync(path, await doc.save());
  execFileSync('pdftoppm', [
    '-png',
    '-singlefile',
    '-scale-to-x',
    '420',
    '-scale-to-y',
    '560',
    path,
    join(folder, 'page'),
  ]);
  const { data, width, height } = PNG.sync.read(readFileSync(join(folder, 'page.png')));
  const boxes = execFileSync('pdftotext', ['-bbox-layout', path, '-'], { encoding: 'utf8' });
  const lines = [...boxes.matchAll(/<line xMin="[\d.]+" yMin="([\d.]+)" xMax="[\d.]+" yMax="([\d.]+)"/g)].map(
    ([, top, bottom]) => ({ top: Number(top) / 800, bottom: Number(bottom) / 800 }),
  );
  return { picture: greyFrame(data, width, height), lines };
}

describe('where a sheet can stop', () => {
  it.each([
    ['on paper', false],
    ['on a dark ground', true],
  ])('is once between each two lines that poppler finds, and at the end, %s', async (_, dark) => {
    const { picture, lines } = await page([28, 14, 14, 20, 11], dark);
    expect(lines).toHaveLength(5);
    const stops = lineStops(picture);
    expect(stops).toHaveLength(5);
    lines.slice(1).forEach((line, i) => {
      const middle = (lines[i]!.top + lines[i]!.bottom) / 2;
      expect(stops[i]).toBeGreaterThan(middle);
      expect(stops[i]).toBeLessThan((line.top + line.bottom) / 2);
    });
    expect(stops.at(-1)).toBe(1);
  });

  it('is only the end where nothing is written, or nothing has a gap', () => {
    const blank = { width: 60, height: 80, grey: new Uint8Array(4800).fill(255) };
    expect(lineStops(blank)).toEqual([1]);
    const column = new Uint8Array(4800).fill(255);
    for (let y = 0; y < 80; y++) column.fill(0, y * 60 + 10, y * 60 + 20);
    expect(lineStops({ ...blank, grey: column })).toEqual([1]);
  });
});
