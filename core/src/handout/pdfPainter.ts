import type { PDFDocument, PDFFont, PDFImage, PDFOperator, PDFPage } from '@cantoo/pdf-lib';
import {
  LineCapStyle,
  LineJoinStyle,
  PDFName,
  PDFOperator as Operator,
  PDFOperatorNames,
  beginText,
  clip,
  closePath,
  concatTransformationMatrix,
  drawObject,
  endPath,
  endText,
  fill,
  lineTo,
  moveTo,
  popGraphicsState,
  pushGraphicsState,
  setDashPattern,
  setFillingRgbColor,
  setFontAndSize,
  setGraphicsState,
  setLineCap,
  setLineJoin,
  setLineWidth,
  setStrokingRgbColor,
  setTextMatrix,
  showText,
  stroke,
} from '@cantoo/pdf-lib';
import { parseHex } from '../colour/contrast.js';
import type { Matrix } from '../geometry/matrix.js';
import type { Rect } from '../geometry/rect.js';
import type { Mark } from '../marks/mark.js';
import type { Blend, PaintItem, PaintOf } from '../paint/paint.js';
import { paintMark } from '../paint/paint.js';
import { loadFace } from '../text/faceTables.js';
import type { Face } from '../text/font.js';
import { pathOperators } from './pdfPath.js';
import type { HandoutSources } from './sources.js';

const BLEND_MODES: Record<Blend, string> = { normal: 'Normal', multiply: 'Multiply' };

/** Fill by the even-odd rule (ISO 32000-1 table 60, operator f*). */
const fillEvenOdd = () => Operator.of(PDFOperatorNames.FillEvenOdd);

/** Draws marks into pages of one PDF document. */
export class PdfPainter {
  private readonly fonts = new Map<Face, Promise<PDFFont>>();
  private readonly images = new Map<string, Promise<PDFImage | undefined>>();

  constructor(
    private readonly doc: PDFDocument,
    private readonly sources: HandoutSources,
  ) {}

  /** Puts marks over what the page already shows; `toUserSpace` maps page units to the page's own space. */
  async paint(page: PDFPage, marks: readonly Mark[], toUserSpace: Matrix): Promise<void> {
    await loadFaces(marks);
    await this.paintItems(page, marks.flatMap(paintMark), toUserSpace);
  }

  /** Draws what a renderer would, in page units. */
  async paintItems(page: PDFPage, items: readonly PaintItem[], toUserSpace: Matrix): Promise<void> {
    if (items.length === 0) return;
    const resources = new PageResources(page);
    const operators: PDFOperator[] = [pushGraphicsState(), concatTransformationMatrix(...toUserSpace)];
    for (const item of items) {
      operators.push(pushGraphicsState(), ...(await this.item(resources, item)), popGraphicsState());
    }
    page.pushOperators(...operators, popGraphicsState());
  }

  private item(resources: PageResources, item: PaintItem): PDFOperator[] | Promise<PDFOperator[]> {
    switch (item.kind) {
      case 'fill':
        return [
          setGraphicsState(resources.state(item.opacity, item.blend)),
          setFillingRgbColor(...parseHex(item.colour)),
          ...pathOperators(item.path),
          item.rule === 'evenodd' ? fillEvenOdd() : fill(),
        ];
      case 'line':
        return lineOperators(resources, item);
      case 'text':
        return item.fallback ? this.textPicture(resources, item) : this.text(resources, item);
      case 'picture':
        return this.picture(resources, item);
    }
  }

  private async text(resources: PageResources, item: PaintOf<'text'>): Promise<PDFOperator[]> {
    const font = await this.font(item.face);
    return [
      ...turned(item.matrix),
      setFillingRgbColor(...parseHex(item.colour)),
      beginText(),
      setFontAndSize(resources.font(font), item.size),
      setTextMatrix(1, 0, 0, -1, item.x, item.y),
      showText(font.encodeText(item.text)),
      endText(),
    ];
  }

  private async textPicture(resources: PageResources, item: PaintOf<'text'>): Promise<PDFOperator[]> {
    const picture = await this.sources.textPicture(item);
    const image = await this.doc.embedPng(picture.bytes);
    const bottom = item.y - picture.baseline + picture.height;
    return [
      ...turned(item.matrix),
      concatTransformationMatrix(picture.width, 0, 0, -picture.height, item.x, bottom),
      drawObject(resources.image(image)),
    ];
  }

  private async picture(resources: PageResources, item: PaintOf<'picture'>): Promise<PDFOperator[]> {
    const image = await this.image(item.material);
    if (!image) return [];
    const { crop } = item;
    const [width, height] = [item.width / crop.width, item.height / crop.height];
    const [left, top] = [item.x - crop.x * width, item.y - crop.y * height];
    return [
      ...turned(item.matrix),
      ...clipTo(item),
      setGraphicsState(resources.state(item.opacity, 'normal')),
      concatTransformationMatrix(width, 0, 0, -height, left, top + height),
      drawObject(resources.image(image)),
    ];
  }

  private image(material: string): Promise<PDFImage | undefined> {
    let image = this.images.get(material);
    if (!image) {
      image = this.sources.picture(material).then((file) => {
        if (!file) return undefined;
        return file.type === 'png' ? this.doc.embedPng(file.bytes) : this.doc.embedJpg(file.bytes);
      });
      this.images.set(material, image);
    }
    return image;
  }

  private font(face: Face): Promise<PDFFont> {
    let font = this.fonts.get(face);
    if (!font) {
      // Kerning and ligatures off: lines are laid out by plain advance widths everywhere.
      const features = { kern: false, liga: false, clig: false, calt: false };
      font = this.sources.font(face).then((bytes) => this.doc.embedFont(bytes, { subset: true, features }));
      this.fonts.set(face, font);
    }
    return font;
  }
}

/** Names of fonts, pictures and graphics states in one page's resources. */
class PageResources {
  private readonly names = new Map<unknown, PDFName>();

  constructor(private readonly page: PDFPage) {}

  font(font: PDFFont): PDFName {
    return this.named(font, () => this.page.node.newFontDictionary(font.name, font.ref));
  }

  image(image: PDFImage): PDFName {
    return this.named(image, () => this.page.node.newXObject('Picture', image.ref));
  }

  /** Opacity and blend mode as a graphics state (ISO 32000-1 table 58, entries CA, ca and BM). */
  state(opacity: number, blend: Blend): PDFName {
    return this.named(`${opacity} ${blend}`, () => {
      const dict = this.page.doc.context.obj({
        Type: 'ExtGState',
        CA: opacity,
        ca: opacity,
        BM: BLEND_MODES[blend],
      });
      return this.page.node.newExtGState('Ink', dict);
    });
  }

  private named(key: unknown, make: () => PDFName): PDFName {
    const name = this.names.get(key) ?? make();
    this.names.set(key, name);
    return name;
  }
}

/** Makes sure that all faces of the marks are laid out by their own widths. */
async function loadFaces(marks: readonly Mark[]): Promise<void> {
  for (const item of marks.flatMap(paintMark)) if (item.kind === 'text') await loadFace(item.face);
}

function lineOperators(resources: PageResources, item: PaintOf<'line'>): PDFOperator[] {
  return [
    setGraphicsState(resources.state(item.opacity, 'normal')),
    setStrokingRgbColor(...parseHex(item.colour)),
    setLineWidth(item.width),
    setLineCap(LineCapStyle.Round),
    setLineJoin(LineJoinStyle.Round),
    ...(item.dash.length > 0 ? [setDashPattern([...item.dash], 0)] : []),
    ...pathOperators(item.path),
    stroke(),
  ];
}

function clipTo({ x, y, width, height }: Rect): PDFOperator[] {
  return [
    moveTo(x, y),
    lineTo(x + width, y),
    lineTo(x + width, y + height),
    lineTo(x, y + height),
    closePath(),
    clip(),
    endPath(),
  ];
}

function turned(matrix: Matrix | undefined): PDFOperator[] {
  return matrix ? [concatTransformationMatrix(...matrix)] : [];
}
