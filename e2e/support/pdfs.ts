import fontkit from '@cantoo/fontkit';
import { degrees, PDFDocument, PDFName, PDFString, rgb, StandardFonts } from '@cantoo/pdf-lib';
import { execFileSync } from 'node:child_process';
import { mkdtempSync, readFileSync, writeFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { tmpdir } from 'node:os';
import { dirname, join } from 'node:path';
import { PNG } from 'pngjs';

const require = createRequire(import.meta.url);

/** A lesson of A4 pages with a heading each. */
export async function plainPdf(pages = 3): Promise<Uint8Array> {
  const doc = await PDFDocument.create();
  const font = await doc.embedFont(StandardFonts.Helvetica);
  for (let n = 1; n <= pages; n++) {
    const page = doc.addPage([595.28, 841.89]);
    page.drawText(`Bridges, sheet ${n}`, { x: 60, y: 760, size: 28, font });
    page.drawRectangle({
      x: 60,
      y: 300,
      width: 475,
      height: 300,
      borderWidth: 2,
      borderColor: rgb(0.2, 0.3, 0.5),
    });
  }
  return doc.save();
}

/** Odd pages that real files have: sizes, turns, crop boxes, user units, a scan, a form, CJK text, an embedded font. */
export async function oddPdf(): Promise<Uint8Array> {
  const doc = await PDFDocument.create();
  doc.registerFontkit(fontkit);
  const font = await doc.embedFont(StandardFonts.TimesRoman);
  const label = (width: number, height: number, text: string) => {
    const page = doc.addPage([width, height]);
    page.drawText(text, { x: 40, y: height / 2, size: 18, font });
    page.drawRectangle({
      x: 20,
      y: 20,
      width: width - 40,
      height: height - 40,
      borderWidth: 3,
      borderColor: rgb(0.6, 0.1, 0.1),
    });
    return page;
  };
  label(400, 300, 'Small page');
  label(1190, 842, 'Wide page');
  for (const turn of [90, 180, 270]) label(400, 600, `Turned by ${turn}`).setRotation(degrees(turn));
  label(600, 600, 'Cropped page').setCropBox(30, 200, 400, 250);
  label(300, 200, 'Unit of two').node.set(PDFName.of('UserUnit'), doc.context.obj(2));

  const scan = new PNG({ width: 120, height: 160 });
  for (let i = 0; i < scan.data.length; i += 4) scan.data.set([230, 225, 210 - ((i / 4) % 120), 255], i);
  doc
    .addPage([300, 400])
    .drawImage(await doc.embedPng(PNG.sync.write(scan)), { x: 0, y: 0, width: 300, height: 400 });

  const form = doc.getForm();
  const field = form.createTextField('answer');
  field.setText('Filled in before');
  field.addToPage(label(400, 300, 'Form page'), { x: 40, y: 60, width: 300, height: 30 });

  const andika = readFileSync(require.resolve('@expo-google-fonts/andika/Andika_400Regular.ttf'));
  const embedded = await doc.embedFont(andika, { subset: true });
  doc.addPage([400, 300]).drawText('Größe żółć Привет', { x: 40, y: 150, size: 24, font: embedded });

  addCjkPage(doc);
  return doc.save();
}

/** Chinese text in a predefined CMap without an embedded font (ISO 32000-1 §9.7.5.2), as many old files have it. */
function addCjkPage(doc: PDFDocument): void {
  const page = doc.addPage([400, 300]);
  const font = doc.context.obj({
    Type: 'Font',
    Subtype: 'Type0',
    BaseFont: 'STSong-Light',
    Encoding: 'UniGB-UCS2-H',
    DescendantFonts: [
      {
        Type: 'Font',
        Subtype: 'CIDFontType0',
        BaseFont: 'STSong-Light',
        CIDSystemInfo: { Registry: PDFString.of('Adobe'), Ordering: PDFString.of('GB1'), Supplement: 2 },
        FontDescriptor: {
          Type: 'FontDescriptor',
          FontName: 'STSong-Light',
          Flags: 6,
          FontBBox: [-25, -254, 1000, 880],
          ItalicAngle: 0,
          Ascent: 880,
          Descent: -120,
          CapHeight: 880,
          StemV: 93,
        },
      },
    ],
  });
  page.node.newFontDictionary('CJK', doc.context.register(font));
  const key = page.node
    .Resources()!
    .lookup(PDFName.of('Font'))!
    .toString()
    .match(/\/CJK[-\d]*/)![0];
  const hex = [...'桥梁'].map((char) => char.charCodeAt(0).toString(16).padStart(4, '0')).join('');
  const stream = doc.context.stream(`BT ${key} 36 Tf 60 150 Td <${hex}> Tj ET`);
  page.node.addContentStream(doc.context.register(stream));
}

/** Sample files that the pdf-parse package ships for its own tests. */
export function samplePdf(name: string): Uint8Array {
  return readFileSync(join(dirname(require.resolve('pdf-samples/package.json')), 'test', 'data', name));
}

/** What a reader that is not ours makes of a PDF. */
export class OutsideReader {
  private readonly folder = mkdtempSync(join(tmpdir(), 'doodla-read-'));
  private readonly path = join(this.folder, 'file.pdf');

  constructor(bytes: Uint8Array) {
    writeFileSync(this.path, bytes);
  }

  /** qpdf's check of syntax and structure; throws where it finds an error. */
  check(): void {
    execFileSync('qpdf', ['--check', this.path], { stdio: 'pipe' });
  }

  /** The words of a page as pdftotext finds them, with single spaces between. */
  text(page: number): string {
    const out = execFileSync('pdftotext', ['-f', String(page), '-l', String(page), this.path, '-'], {
      encoding: 'utf8',
    });
    return out.replace(/\s+/g, ' ');
  }

  /** Where links of a page lead outside, as pdfinfo lists them. */
  addresses(page: number): string[] {
    const pages = ['-f', String(page), '-l', String(page)];
    const out = execFileSync('pdfinfo', ['-url', ...pages, this.path], { encoding: 'utf8' });
    return out.split('\n').flatMap((line) => /\bhttps?:\S+/.exec(line) ?? []);
  }

  /** Where pdftotext finds a word for the first time on a page: its box from the top left, points. */
  boxOf(page: number, word: string): { x: number; y: number; right: number; bottom: number } {
    const pages = ['-f', String(page), '-l', String(page)];
    const out = execFileSync('pdftotext', ['-bbox', ...pages, this.path, '-'], { encoding: 'utf8' });
    const line = out.split('\n').find((each) => each.includes(`>${word}<`))!;
    const [x, y, right, bottom] = [...line.matchAll(/"([\d.]+)"/g)].map(([, value]) => Number(value));
    return { x: x!, y: y!, right: right!, bottom: bottom! };
  }

  /** Size in points, before turning, and turn of every page, as pdfinfo prints them. */
  geometry(): string[] {
    const out = execFileSync('pdfinfo', ['-f', '1', '-l', '9999', '-box', this.path], { encoding: 'utf8' });
    return out
      .split('\n')
      .filter((line) => /^Page +\d+ (size|rot|CropBox|MediaBox)/.test(line))
      .map((line) => line.replace(/\s+/g, ' '));
  }

  /** How many pictures of pixels there are, as pdfimages lists them under two lines of heads. */
  pixelPictures(): number {
    const out = execFileSync('pdfimages', ['-list', this.path], { encoding: 'utf8' });
    return out.trim().split('\n').length - 2;
  }

  /** The page as poppler draws it, its longer side `longer` pixels. */
  picture(page: number, longer: number): PNG {
    const target = join(this.folder, 'page');
    execFileSync('pdftoppm', [
      '-png',
      '-f',
      String(page),
      '-l',
      String(page),
      '-cropbox',
      '-singlefile',
      '-scale-to',
      String(longer),
      this.path,
      target,
    ]);
    return PNG.sync.read(readFileSync(`${target}.png`));
  }
}
