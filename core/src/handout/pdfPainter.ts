import type { PDFDocument, PDFFont, PDFOperator, PDFPage } from '@cantoo/pdf-lib';
import {
  PDFName,
  beginText,
  concatTransformationMatrix,
  drawObject,
  endText,
  fill,
  popGraphicsState,
  pushGraphicsState,
  setFillingRgbColor,
  setFontAndSize,
  setGraphicsState,
  setTextMatrix,
  showText,
} from '@cantoo/pdf-lib';
import { parseHex } from '../colour/contrast.js';
import type { Matrix } from '../geometry/matrix.js';
import type { FontId, Mark } from '../marks/mark.js';
import type { Blend, PaintItem } from '../paint/paint.js';
import { paintMark } from '../paint/paint.js';
import { pathOperators } from './pdfPath.js';
import type { HandoutSources } from './sources.js';

type FillItem = Extract<PaintItem, { kind: 'fill' }>;
type TextItem = Extract<PaintItem, { kind: 'text' }>;

const BLEND_MODES: Record<Blend, string> = { normal: 'Normal', multiply: 'Multiply' };

/** Draws marks into pages of one PDF document. */
export class PdfPainter {
  private readonly fonts = new Map<FontId, Promise<PDFFont>>();

  constructor(
    private readonly doc: PDFDocument,
    private readonly sources: HandoutSources,
  ) {}

  /** Puts marks over what the page already shows; `toUserSpace` maps page units to the page's own space. */
  async paint(page: PDFPage, marks: readonly Mark[], toUserSpace: Matrix): Promise<void> {
    if (marks.length === 0) return;
    const operators: PDFOperator[] = [pushGraphicsState(), concatTransformationMatrix(...toUserSpace)];
    const states = new Map<string, PDFName>();
    for (const item of marks.flatMap(paintMark)) {
      operators.push(pushGraphicsState());
      operators.push(
        ...(item.kind === 'fill' ? fillOperators(page, states, item) : await this.text(page, item)),
      );
      operators.push(popGraphicsState());
    }
    page.pushOperators(...operators, popGraphicsState());
  }

  private async text(page: PDFPage, item: TextItem): Promise<PDFOperator[]> {
    if (item.fallback) return this.textPicture(page, item);
    const font = await this.font(item.font);
    const key = page.node.newFontDictionary(font.name, font.ref);
    return [
      setFillingRgbColor(...parseHex(item.colour)),
      beginText(),
      setFontAndSize(key, item.size),
      setTextMatrix(1, 0, 0, -1, item.x, item.y),
      showText(font.encodeText(item.text)),
      endText(),
    ];
  }

  private async textPicture(page: PDFPage, item: TextItem): Promise<PDFOperator[]> {
    const picture = await this.sources.textPicture(item);
    const image = await this.doc.embedPng(picture.bytes);
    const key = page.node.newXObject('TextPicture', image.ref);
    const bottom = item.y - picture.baseline + picture.height;
    return [
      concatTransformationMatrix(picture.width, 0, 0, -picture.height, item.x, bottom),
      drawObject(key),
    ];
  }

  private font(id: FontId): Promise<PDFFont> {
    let font = this.fonts.get(id);
    if (!font) {
      // Kerning and ligatures off: lines are laid out by plain advance widths everywhere.
      const features = { kern: false, liga: false, clig: false, calt: false };
      font = this.sources.font(id).then((bytes) => this.doc.embedFont(bytes, { subset: true, features }));
      this.fonts.set(id, font);
    }
    return font;
  }
}

function fillOperators(page: PDFPage, states: Map<string, PDFName>, item: FillItem): PDFOperator[] {
  return [
    setGraphicsState(graphicsState(page, states, item)),
    setFillingRgbColor(...parseHex(item.colour)),
    ...pathOperators(item.path),
    fill(),
  ];
}

/** Opacity and blend mode as a graphics state (ISO 32000-1 table 58, entries ca and BM). */
function graphicsState(page: PDFPage, states: Map<string, PDFName>, { opacity, blend }: FillItem): PDFName {
  const key = `${opacity} ${blend}`;
  let name = states.get(key);
  if (!name) {
    const dict = page.doc.context.obj({ Type: 'ExtGState', ca: opacity, BM: BLEND_MODES[blend] });
    name = page.node.newExtGState('Ink', dict);
    states.set(key, name);
  }
  return name;
}
