import { PDFDocument } from '@cantoo/pdf-lib';
import { execFileSync } from 'node:child_process';
import { mkdtempSync, readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';

/** A PDF with a page for each size, in points. */
export async function pdfWith(...sizes: [number, number][]): Promise<Uint8Array> {
  const doc = await PDFDocument.create();
  for (const size of sizes) doc.addPage(size);
  return doc.save();
}

/** The same PDF encrypted by qpdf. */
export function encrypted(pdf: Uint8Array, userPassword: string, ownerPassword: string): Uint8Array {
  const folder = mkdtempSync(join(tmpdir(), 'doodla-pdf-'));
  writeFileSync(join(folder, 'in.pdf'), pdf);
  execFileSync('qpdf', [
    '--encrypt',
    userPassword,
    ownerPassword,
    '256',
    '--',
    join(folder, 'in.pdf'),
    join(folder, 'out.pdf'),
  ]);
  return readFileSync(join(folder, 'out.pdf'));
}
