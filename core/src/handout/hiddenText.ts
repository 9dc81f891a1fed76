import type { PDFContext, PDFDocument, PDFPage, PDFRef } from '@cantoo/pdf-lib';
import { strToU8, zlibSync } from 'fflate';
import type { Matrix } from '../geometry/matrix.js';
import { ContentWriter, short } from './contentWriter.js';
import type { LaidOutText } from './sources.js';

/** Width of every character, of the size; runs are stretched to where they really end. */
const ADVANCE = 0.5;
/** How far below the top of its line a letter stands, of the line's height. */
const BASELINE = 0.8;
/** Codes of a font: one byte, without zero. */
const CODES = 255;

/** Writes text to be selected, found and read out, which lies over a picture of it and shows nothing itself. */
export class HiddenText {
  private readonly fonts: EmptyFont[] = [];
  private readonly places = new Map<string, { font: EmptyFont; code: number }>();

  constructor(private readonly doc: PDFDocument) {}

  /** Puts runs of text on a page; `toUserSpace` maps their units to the page's own space. */
  write(page: PDFPage, texts: readonly LaidOutText[], toUserSpace: Matrix): void {
    if (texts.length === 0) return;
    const names = new Map<EmptyFont, string>();
    const nameOf = (font: EmptyFont) => {
      const name = names.get(font) ?? String(page.node.newFontDictionary('Hidden', font.ref));
      names.set(font, name);
      return name;
    };
    const writer = new ContentWriter();
    writer.save();
    writer.transform(toUserSpace);
    writer.write('BT');
    for (const { text, x, y, width, height } of texts) {
      const [size, letters] = [height * BASELINE, [...text]];
      writer.write('Tz', (width / (letters.length * ADVANCE * size)) * 100);
      writer.write('Tm', 1, 0, 0, -1, x, y + size);
      for (const { font, codes } of this.encoded(letters)) {
        writer.set('Tf', `${nameOf(font)} ${short(size)}`);
        writer.write('Tj', `<${codes.map((code) => hex(code, 2)).join('')}>`);
      }
    }
    writer.write('ET');
    writer.restore();
    const { context } = this.doc;
    const stream = context.stream(writer.finish(), { Filter: 'FlateDecode' });
    page.node.addContentStream(context.register(stream));
    for (const font of this.fonts) font.define();
  }

  /** Letters as codes, those in a row of one font together. */
  private encoded(letters: readonly string[]): { font: EmptyFont; codes: number[] }[] {
    const runs: { font: EmptyFont; codes: number[] }[] = [];
    for (const letter of letters) {
      const { font, code } = this.placeOf(letter);
      const last = runs.at(-1);
      if (last?.font === font) last.codes.push(code);
      else runs.push({ font, codes: [code] });
    }
    return runs;
  }

  private placeOf(letter: string): { font: EmptyFont; code: number } {
    const known = this.places.get(letter);
    if (known) return known;
    let font = this.fonts.at(-1);
    if (!font || font.isFull) this.fonts.push((font = new EmptyFont(this.doc.context)));
    const place = { font, code: font.add(letter) };
    this.places.set(letter, place);
    return place;
  }
}

/** A font whose glyphs show nothing (Type 3, ISO 32000-1 §9.6.5), and which says what they stand for (§9.10.3). */
class EmptyFont {
  readonly ref: PDFRef;
  private readonly letters: string[] = [];
  private defined = 0;

  constructor(private readonly context: PDFContext) {
    this.ref = context.nextRef();
  }

  get isFull(): boolean {
    return this.letters.length === CODES;
  }

  add(letter: string): number {
    return this.letters.push(letter);
  }

  /** Writes the font as far as it has come. */
  define(): void {
    const { context, letters } = this;
    if (this.defined === letters.length) return;
    this.defined = letters.length;
    const empty = context.register(context.stream(`${ADVANCE} 0 d0`));
    const map = context.stream(zlibSync(strToU8(toUnicode(letters))), { Filter: 'FlateDecode' });
    const encoding = { Type: 'Encoding', Differences: [1, ...letters.map(() => 'empty')] };
    context.assign(
      this.ref,
      context.obj({
        Type: 'Font',
        Subtype: 'Type3',
        FontBBox: [0, 0, 0, 0],
        FontMatrix: [1, 0, 0, 1, 0, 0],
        CharProcs: { empty },
        Resources: {},
        Encoding: encoding,
        FirstChar: 1,
        LastChar: letters.length,
        Widths: letters.map(() => ADVANCE),
        ToUnicode: context.register(map),
      }),
    );
  }
}

function hex(code: number, digits: number): string {
  return code.toString(16).padStart(digits, '0');
}

/** What the codes from 1 on stand for (Adobe Technical Note 5411). */
function toUnicode(letters: readonly string[]): string {
  const lines = letters.map((letter, i) => `<${hex(i + 1, 2)}> <${utf16(letter)}>`);
  const blocks: string[] = [];
  // A hundred at a time at most.
  for (let i = 0; i < lines.length; i += 100) {
    const some = lines.slice(i, i + 100);
    blocks.push(`${some.length} beginbfchar\n${some.join('\n')}\nendbfchar`);
  }
  return `/CIDInit /ProcSet findresource begin
12 dict begin
begincmap
/CMapName /Hidden def
/CMapType 2 def
1 begincodespacerange
<01> <ff>
endcodespacerange
${blocks.join('\n')}
endcmap
CMapName currentdict /CMap defineresource pop
end
end`;
}

function utf16(letter: string): string {
  return Array.from({ length: letter.length }, (_, i) => hex(letter.charCodeAt(i), 4)).join('');
}
