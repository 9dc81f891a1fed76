import '../measure/index.js';
import '../rulings/index.js';
import type { PDFPage } from '@cantoo/pdf-lib';
import { PDFDocument, PDFName } from '@cantoo/pdf-lib';
import type { Matrix } from '../geometry/matrix.js';
import { applyMatrix, compose, inverse } from '../geometry/matrix.js';
import type { Rect } from '../geometry/rect.js';
import { rectFromCorners, rectsTouch, unionRect } from '../geometry/rect.js';
import { markBounds } from '../marks/bounds.js';
import type { Mark } from '../marks/mark.js';
import { pageExtent } from '../pages/extent.js';
import type { Page } from '../pages/page.js';
import { MAX_PAGE_SIDE, UNITS_PER_POINT } from '../pages/page.js';
import type { PaintItem } from '../paint/items.js';
import { paintSurface } from '../paint/paintSurface.js';
import { paintedMarks } from '../paint/shownOn.js';
import { Annotator } from './annotate/annotator.js';
import { flattenAnnotations, isShownOnly } from './annotations.js';
import { CopiedPages } from './copiedPages.js';
import { flattenFieldsUnder } from './fields.js';
import { footOf, paintFoot } from './foot.js';
import type { Loss } from './losses.js';
import { geometryOf, Originals } from './originals.js';
import { prepareContents } from './pageContents.js';
import type { PageLabel } from './pageLabels.js';
import type { InkOfPage } from './inkAhead.js';
import { InkAhead } from './inkAhead.js';
import { labelsOf, writeLabels } from './pageLabels.js';
import { pageToUserSpace } from './pageTransform.js';
import { PdfPainter } from './pdfPainter.js';
import { plainFontkit } from './plainFontkit.js';
import { StructureTree } from './structure.js';
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
  const ink = new InkAhead(pages, sources.ink);
  const handout = await Handout.begin(
    pages.map(({ page }) => page),
    sources,
    options,
  );
  for (const [i, page] of pages.entries()) {
    await handout.add(page, await ink.take(i));
    options.onProgress?.(i + 1, pages.length);
  }
  if (options.foot !== undefined) await handout.writeFeet(options.foot);
  return handout.save();
}

/** A handout that is being made, its pages added from the first to the last. */
class Handout {
  private readonly painter: PdfPainter;
  private readonly annotator: Annotator | undefined;
  private readonly webPages: WebPagePlacer;
  /** How pages are numbered that are there so far; undefined for those by their place. */
  private readonly labels: (PageLabel | undefined)[] = [];

  private constructor(
    private readonly doc: PDFDocument,
    /** The document whose pages are here already. */
    private readonly whole: string | undefined,
    private readonly labelOfWhole: ReturnType<typeof labelsOf>,
    private readonly copies: CopiedPages,
    private readonly structure: StructureTree | undefined,
    private readonly sources: HandoutSources,
    private readonly options: HandoutOptions,
    private readonly onLoss: (loss: Loss) => void,
  ) {
    this.painter = new PdfPainter(doc, sources);
    if (options.marksAs === 'annotations') this.annotator = new Annotator(doc, this.painter, structure);
    this.webPages = new WebPagePlacer(doc, sources);
  }

  static async begin(
    pages: readonly Page[],
    sources: HandoutSources,
    options: HandoutOptions,
  ): Promise<Handout> {
    const { title, language } = options;
    const onLoss = onceEach(options.onLoss);
    const originals = new Originals(sources, onLoss);
    const whole = await originals.whole(pages);
    const doc = whole?.doc ?? (await PDFDocument.create());
    if (whole) prepareWhole(doc, onLoss);
    else doc.setCreator('Doodla');
    doc.setProducer('Doodla');
    if (!doc.getTitle()) doc.setTitle(title, { showInWindowTitleBar: true });
    if (language !== undefined && !doc.catalog.has(PDFName.of('Lang'))) doc.setLanguage(language);
    doc.registerFontkit(plainFontkit);
    const isWhole = ({ surface }: Page) => surface.kind === 'pdf' && surface.material === whole?.material;
    const copied = pages.filter((page) => !isWhole(page));
    const copies = await CopiedPages.from(doc, originals, copied, onLoss);
    const structure = structureFor(doc, whole !== undefined, pages);
    return new Handout(doc, whole?.material, labelsOf(doc), copies, structure, sources, options, onLoss);
  }

  /** Adds a page with its marks: one page of the PDF, or several where it is too long for one. */
  async add({ page, marks, alts = {}, below = 0 }: HandoutPage, ink: InkOfPage): Promise<void> {
    this.painter.ready = { ink, items: await paintedMarks(marks) };
    const bounds = marks.map(markBounds);
    const extent = pageExtent(page, bounds);
    const sheets = await this.place(page, extent);
    const last = sheets.pop();
    for (const placed of last ? [...sheets, withRoomBelow(last, below)] : []) {
      const isOn = (_: unknown, i: number) => rectsTouch(bounds[i]!, placed.part);
      const own = marks.filter(isOn);
      await this.write(placed, own, bounds.filter(isOn), paintSurface(page, extent), alts);
    }
  }

  /** Puts words at the foot of each page. */
  async writeFeet(pattern: string): Promise<void> {
    await this.painter.stored();
    const pages = this.doc.getPages();
    for (const [i, target] of pages.entries()) {
      const geometry = geometryOf(target);
      const toUserSpace = pageToUserSpace(geometry);
      const [left, bottom, right, top] = geometry.box;
      const shown = mapped(
        { x: left, y: bottom, width: right - left, height: top - bottom },
        inverse(toUserSpace),
      );
      const items = paintFoot(shown, footOf(pattern, i + 1, pages.length));
      prepareContents(target);
      const isArtifact = this.structure !== undefined;
      await this.painter.paintItems(target, items, { toUserSpace, isArtifact });
    }
  }

  async save(): Promise<Uint8Array> {
    await this.painter.stored();
    this.structure?.finish();
    if (this.labels.some((label) => label !== undefined)) writeLabels(this.doc, this.labels);
    return this.doc.save({ addDefaultPage: false, updateFieldAppearances: false, objectsPerTick: Infinity });
  }

  private async write(
    { target, part, scale, isSheet }: Placed,
    marks: readonly Mark[],
    bounds: readonly Rect[],
    ground: readonly PaintItem[],
    alts: Readonly<Record<string, string>>,
  ) {
    const [first] = bounds;
    const written = first && bounds.reduce(unionRect, first);
    if (!written && ground.length === 0) return;
    const toUserSpace = userSpaceOf({ target, part, scale });
    const place = { toUserSpace, clip: isSheet ? part : undefined };
    const altOf = (mark: Mark) => mark.alt ?? alts[mark.id] ?? '';
    prepareContents(target);
    if (written && !this.annotator) {
      if (flattenFieldsUnder(target, mapped(written, toUserSpace))) this.onLoss('fields');
      flattenAnnotations(target, isShownOnly);
    }
    if (ground.length > 0)
      await this.painter.paintItems(target, ground, { ...place, isArtifact: this.structure !== undefined });
    if (this.annotator) {
      for (const mark of marks)
        await this.annotator.add(target, mark, toUserSpace, {
          author: this.authorOf(mark),
          alt: altOf(mark),
        });
    } else if (this.structure) await this.writeTagged(this.structure, target, marks, place, altOf);
    else await this.painter.paint(target, marks, place);
  }

  private authorOf({ author, credit }: Mark): string {
    return credit ?? this.options.people?.[author] ?? '';
  }

  /** Marks as forms, so that each can be read out as what it is; the strokes of a drawing together. */
  private async writeTagged(
    structure: StructureTree,
    target: PDFPage,
    marks: readonly Mark[],
    place: { toUserSpace: Matrix; clip?: Rect | undefined },
    altOf: (mark: Mark) => string,
  ): Promise<void> {
    for (const run of runsOf(marks)) {
      const form = await this.painter.paintForm(target, run, place);
      const [first] = run as [Mark];
      const role = first.kind === 'text' ? 'P' : 'Figure';
      structure.add(target, form.ref, form.dict, {
        type: role,
        words: first.kind === 'text' ? first.text : altOf(first),
      });
    }
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

/**
 * What screen readers will read: the structure that a document has, or a new one where all of the handout is made here.
 * What an untagged document says would be passed over by readers if something else in it were tagged.
 */
function structureFor(doc: PDFDocument, isWhole: boolean, pages: readonly Page[]): StructureTree | undefined {
  const known = StructureTree.of(doc);
  if (known || isWhole) return known;
  const isOwn = ({ surface }: Page) => surface.kind !== 'pdf' && surface.kind !== 'web';
  return pages.every(isOwn) ? StructureTree.begin(doc) : undefined;
}

/** Neighbours that are read out as one thing: strokes of ink without a description. */
function runsOf(marks: readonly Mark[]): Mark[][] {
  const runs: Mark[][] = [];
  const isInk = (mark: Mark | undefined) => mark?.kind === 'stroke' && mark.alt === null;
  for (const mark of marks) {
    const last = runs.at(-1);
    if (last && isInk(last.at(-1)) && isInk(mark)) last.push(mark);
    else runs.push([mark]);
  }
  return runs;
}

function onceEach(tell: HandoutOptions['onLoss']): (loss: Loss) => void {
  const told = new Set<Loss>();
  return (loss) => {
    if (!told.has(loss)) tell?.(loss);
    told.add(loss);
  };
}

/** The map from page units to the user space of the page that shows a part. */
function userSpaceOf({ target, part, scale }: Pick<Placed, 'target' | 'part' | 'scale'>): Matrix {
  const toCorner: Matrix = [scale, 0, 0, scale, -part.x * scale, -part.y * scale];
  return compose(toCorner, pageToUserSpace(geometryOf(target)));
}

/** A page that is longer at its foot; what is on it stays where it is, however the page is turned (ISO 32000-1 §14.11.2). */
function withRoomBelow(placed: Placed, below: number): Placed {
  if (below === 0) return placed;
  const { target } = placed;
  const part = { ...placed.part, height: placed.part.height + below };
  const [left, bottom, right, top] = geometryOf(target).box;
  const shown = { x: left, y: bottom, width: right - left, height: top - bottom };
  const { x, y, width, height } = unionRect(shown, mapped(part, userSpaceOf(placed)));
  target.setMediaBox(x, y, width, height);
  target.setCropBox(x, y, width, height);
  return { ...placed, part };
}

/** The upright box round a mapped one. */
function mapped({ x, y, width, height }: Rect, matrix: Matrix): Rect {
  return rectFromCorners(...applyMatrix(matrix, x, y), ...applyMatrix(matrix, x + width, y + height));
}

/** How a page is made no larger than one of a PDF can be. */
function scaleOf({ width, height }: Rect): number {
  return Math.min(1, MAX_PAGE_SIDE / Math.max(width, height));
}
