import fontkit from '@cantoo/fontkit';
import type { PDFPage } from '@cantoo/pdf-lib';
import { PDFDocument } from '@cantoo/pdf-lib';
import type { Matrix } from '../geometry/matrix.js';
import { applyMatrix, compose } from '../geometry/matrix.js';
import type { Rect } from '../geometry/rect.js';
import { rectFromCorners, rectsTouch } from '../geometry/rect.js';
import { markBounds } from '../marks/bounds.js';
import type { Mark } from '../marks/mark.js';
import { boundsOf, isExported } from '../marks/select.js';
import { pageExtent } from '../pages/extent.js';
import type { Page } from '../pages/page.js';
import { MAX_PAGE_SIDE, UNITS_PER_POINT } from '../pages/page.js';
import type { PaintItem } from '../paint/items.js';
import { paintSurface } from '../paint/paintSurface.js';
import { flattenAnnotations, isShownOnly } from './annotations.js';
import { CopiedPages } from './copiedPages.js';
import { flattenFieldsUnder } from './fields.js';
import type { Loss } from './losses.js';
import { geometryOf, Originals } from './originals.js';
import { prepareContents } from './pageContents.js';
import type { PageLabel } from './pageLabels.js';
import { labelsOf, writeLabels } from './pageLabels.js';
import { pageToUserSpace } from './pageTransform.js';
import { PdfPainter } from './pdfPainter.js';
import type { HandoutOptions, HandoutPage, HandoutSources } from './sources.js';
import type { Placed } from './webPages.js';
import { WebPagePlacer } from './webPages.js';
import { prepareWhole } from './wholeOriginal.js';

/**
 * The pages with their marks as one PDF: originals as they are (text stays text), ink as filled outlines, typed text in an
 * embedded font, highlighter by the Multiply blend mode (ISO 32000-1 §11.3.5.2). Where all pages of a document are here, the
 * handout is a copy of it with more on its pages, else its pages are copied into a new one. An original that cannot be
 * taken over is put in as a picture.
 */
export async function makePdf(
  pages: readonly HandoutPage[],
  sources: HandoutSources,
  options: HandoutOptions,
): Promise<Uint8Array> {
  const handout = await Handout.begin(
    pages.map(({ page }) => page),
    sources,
    options,
  );
  for (const [i, page] of pages.entries()) {
    await handout.add(page);
    options.onProgress?.(i + 1, pages.length);
  }
  return handout.save();
}

/** A handout that is being made, its pages added from the first to the last. */
class Handout {
  private readonly painter: PdfPainter;
  private readonly webPages: WebPagePlacer;
  /** How pages are numbered that are there so far; undefined for those by their place. */
  private readonly labels: (PageLabel | undefined)[] = [];

  private constructor(
    private readonly doc: PDFDocument,
    /** The document whose pages are here already. */
    private readonly whole: string | undefined,
    private readonly labelOfWhole: ReturnType<typeof labelsOf>,
    private readonly copies: CopiedPages,
    private readonly sources: HandoutSources,
    private readonly onLoss: (loss: Loss) => void,
  ) {
    this.painter = new PdfPainter(doc, sources);
    this.webPages = new WebPagePlacer(doc, sources);
  }

  static async begin(
    pages: readonly Page[],
    sources: HandoutSources,
    { title, onLoss: tell }: HandoutOptions,
  ): Promise<Handout> {
    const onLoss = onceEach(tell);
    const originals = new Originals(sources, onLoss);
    const whole = await originals.whole(pages);
    const doc = whole?.doc ?? (await PDFDocument.create());
    if (whole) prepareWhole(doc, onLoss);
    else doc.setCreator('Doodla');
    doc.setProducer('Doodla');
    if (!doc.getTitle()) doc.setTitle(title, { showInWindowTitleBar: true });
    doc.registerFontkit(fontkit);
    const isWhole = ({ surface }: Page) => surface.kind === 'pdf' && surface.material === whole?.material;
    const copied = pages.filter((page) => !isWhole(page));
    const copies = await CopiedPages.from(doc, originals, copied, onLoss);
    return new Handout(doc, whole?.material, labelsOf(doc), copies, sources, onLoss);
  }

  /** Adds a page with its marks: one page of the PDF, or several where it is too long for one. */
  async add({ page, marks: all }: HandoutPage): Promise<void> {
    const marks = all.filter(isExported);
    const extent = pageExtent(page, [boundsOf(marks)]);
    for (const placed of await this.place(page, extent)) {
      const own = marks.filter((mark) => rectsTouch(markBounds(mark), placed.part));
      await this.write(placed, own, paintSurface(page, extent));
    }
  }

  save(): Promise<Uint8Array> {
    if (this.labels.some((label) => label !== undefined)) writeLabels(this.doc, this.labels);
    return this.doc.save({ addDefaultPage: false, updateFieldAppearances: false });
  }

  private async write(
    { target, part, scale, isSheet }: Placed,
    marks: readonly Mark[],
    ground: readonly PaintItem[],
  ) {
    const written = boundsOf(marks);
    if (!written && ground.length === 0) return;
    const toCorner: Matrix = [scale, 0, 0, scale, -part.x * scale, -part.y * scale];
    const toUserSpace = compose(toCorner, pageToUserSpace(geometryOf(target)));
    const place = { toUserSpace, clip: isSheet ? part : undefined };
    prepareContents(target);
    if (written) {
      if (flattenFieldsUnder(target, mapped(written, toUserSpace))) this.onLoss('fields');
      flattenAnnotations(target, isShownOnly);
    }
    if (ground.length > 0) await this.painter.paintItems(target, ground, place);
    await this.painter.paint(target, marks, place);
  }

  private async place(page: Page, extent: Rect): Promise<Placed[]> {
    const at = this.labels.length;
    if (page.surface.kind === 'web') {
      const placed = await this.webPages.place(page, at);
      this.labels.push(...placed.map(() => undefined));
      return placed;
    }
    const scale = scaleOf(extent);
    const { target, label } = await this.placeOne(page, extent, scale, at);
    this.labels.push(label);
    return [{ target, part: extent, scale, isSheet: false }];
  }

  private async placeOne(
    page: Page,
    extent: Rect,
    scale: number,
    at: number,
  ): Promise<{ target: PDFPage; label?: PageLabel | undefined }> {
    const { doc, copies } = this;
    const { surface } = page;
    if (surface.kind !== 'pdf') {
      const points = scale / UNITS_PER_POINT;
      return { target: doc.insertPage(at, [extent.width * points, extent.height * points]) };
    }
    if (surface.material === this.whole)
      return { target: doc.getPage(at), label: this.labelOfWhole?.(surface.index) };
    const copy = copies.get(page.id);
    if (copy) return { target: doc.insertPage(at, copy), label: copies.labelOf(page.id) };
    return { target: await this.placePicture(at, page) };
  }

  private async placePicture(at: number, page: Page): Promise<PDFPage> {
    const { width, height } = page;
    const { bytes, type } = await this.sources.pagePicture(page, { x: 0, y: 0, width, height });
    const target = this.doc.insertPage(at, [width / UNITS_PER_POINT, height / UNITS_PER_POINT]);
    const image = await (type === 'png' ? this.doc.embedPng(bytes) : this.doc.embedJpg(bytes));
    target.drawImage(image, target.getMediaBox());
    return target;
  }
}

function onceEach(tell: HandoutOptions['onLoss']): (loss: Loss) => void {
  const told = new Set<Loss>();
  return (loss) => {
    if (!told.has(loss)) tell?.(loss);
    told.add(loss);
  };
}

/** The upright box round a mapped one. */
function mapped({ x, y, width, height }: Rect, matrix: Matrix): Rect {
  return rectFromCorners(...applyMatrix(matrix, x, y), ...applyMatrix(matrix, x + width, y + height));
}

/** How a page is made no larger than one of a PDF can be. */
function scaleOf({ width, height }: Rect): number {
  return Math.min(1, MAX_PAGE_SIDE / Math.max(width, height));
}
