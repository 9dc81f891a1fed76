import type { PDFDocument, PDFFont, PDFImage, PDFPage, PDFRef } from '@cantoo/pdf-lib';
import { PDFDict, PDFStream } from '@cantoo/pdf-lib';
import { zlibSync } from 'fflate';
import type { Matrix } from '../geometry/matrix.js';
import { applyMatrix } from '../geometry/matrix.js';
import type { Rect } from '../geometry/rect.js';
import { outlineCorners } from '../ink/outline.js';
import type { Mark, MarkOf } from '../marks/mark.js';
import { boundsOf } from '../marks/select.js';
import { inkFill, isFilledInk } from '../marks/stroke/strokePaint.js';
import type { PaintItem, PaintOf } from '../paint/items.js';
import { paintMark } from '../paint/paint.js';
import type { Face } from '../text/font.js';
import { colourOperands, ContentWriter } from './contentWriter.js';
import { standsAlone } from './plainFontkit.js';
import { InkOfPage } from './inkAhead.js';
import type { GraphicsStates } from './resourceNames.js';
import { graphicsStates, ResourceNames } from './resourceNames.js';
import type { HandoutSources } from './sources.js';

/** Bytes that are compressed here. */
const LITTLE = 20_000;
/** Line caps and joins (ISO 32000-1 tables 54 and 55). */
const ROUND = 1;

/** Ink whose outline is written without the steps of a path. */
interface InkItem {
  kind: 'ink';
  mark: MarkOf<'stroke'>;
}

/** Where page units lie in a page's own space, and the part of the page that is shown there, if not all. */
interface PaintPlace {
  toUserSpace: Matrix;
  clip?: Rect | undefined;
  /** Whether it is nothing to be read out (§14.8.2.2). */
  isArtifact?: boolean;
}

/** Where a form lies: its box as left, bottom, right, top, and the map that turns it. */
interface FormPlace {
  toUserSpace: Matrix;
  box: readonly [number, number, number, number];
  matrix?: Matrix | undefined;
}

/** What fills ink, and how other marks are drawn, as far as either is known. */
interface ReadyMarks {
  ink: InkOfPage;
  items: ReadonlyMap<Mark, readonly PaintItem[]>;
}

/** Draws marks into pages of one PDF document; their faces have to be known (`loadFaces`). */
export class PdfPainter {
  private readonly fonts = new Map<Face, Promise<PDFFont>>();
  private readonly glyphs = new Map<PDFFont, Map<string, string>>();
  private readonly colours = new Map<string, string>();
  private readonly images = new Map<string, Promise<PDFImage | undefined>>();

  /** What was worked out of marks before they are drawn. */
  ready: ReadyMarks = { ink: new InkOfPage(), items: new Map() };

  private readonly states: GraphicsStates;
  private readonly storing: Promise<void>[] = [];

  constructor(
    private readonly doc: PDFDocument,
    private readonly sources: HandoutSources,
  ) {
    this.states = graphicsStates(doc);
  }

  /** Puts marks over what the page already shows, as `paintItems` does. */
  async paint(page: PDFPage, marks: readonly Mark[], place: PaintPlace): Promise<void> {
    if (marks.length > 0) await this.paintItems(page, this.itemsOf(marks), place);
  }

  /** Draws what a renderer would, in page units. */
  async paintItems(page: PDFPage, items: Iterable<PaintItem | InkItem>, place: PaintPlace): Promise<void> {
    const { Resources } = page.node.normalizedEntries();
    const writer = await this.written(items, Resources, place);
    const { context } = this.doc;
    const ref = context.nextRef();
    page.node.addContentStream(ref);
    // The next page is written while this one is compressed.
    const stored = this.compressed(writer).then((bytes) =>
      context.assign(ref, context.stream(bytes, { Filter: 'FlateDecode' })),
    );
    stored.catch(() => undefined); // Whoever waits for all of them hears of it.
    this.storing.push(stored);
  }

  /** Resolves once all that was painted is in the document, which nobody may read before. */
  async stored(): Promise<void> {
    await Promise.all(this.storing.splice(0));
  }

  /** As `paint`, by a form of its own that can be spoken of; Figures of ISO 32000-1 §14.8 are such. */
  async paintForm(
    page: PDFPage,
    marks: readonly Mark[],
    { toUserSpace, clip }: PaintPlace,
  ): Promise<{ ref: PDFRef; dict: PDFDict }> {
    const { x, y, width, height } = clip ?? boundsOf(marks)!;
    const corners = [...applyMatrix(toUserSpace, x, y), ...applyMatrix(toUserSpace, x + width, y + height)];
    const [x0, y0, x1, y1] = corners as [number, number, number, number];
    const box = [Math.min(x0, x1), Math.min(y0, y1), Math.max(x0, x1), Math.max(y0, y1)] as const;
    const ref = await this.form(marks, { toUserSpace, box });
    const { context } = this.doc;
    const key = page.node.newXObject('Marks', ref);
    const stream = context.stream(`q ${String(key)} Do Q`);
    page.node.addContentStream(context.register(stream));
    return { ref, dict: context.lookup(ref, PDFStream).dict };
  }

  /**
   * A picture of marks on its own (a form, ISO 32000-1 §8.10) that shows what lies in `box`, in the space that `place` leads
   * to; `matrix` turns it there.
   */
  async form(marks: readonly Mark[], { toUserSpace, box, matrix }: FormPlace): Promise<PDFRef> {
    const { context } = this.doc;
    const resources = PDFDict.withContext(context);
    const writer = await this.written(this.itemsOf(marks), resources, { toUserSpace });
    const stream = context.stream(await this.compressed(writer), {
      Type: 'XObject',
      Subtype: 'Form',
      BBox: [...box],
      Resources: resources,
      Filter: 'FlateDecode',
      ...(matrix && { Matrix: [...matrix] }),
    });
    return context.register(stream);
  }

  /** By what compresses fastest; for a little the way there takes longer than it. */
  private async compressed(writer: ContentWriter): Promise<Uint8Array> {
    const { deflate } = this.sources;
    const bytes = writer.bytes();
    return deflate && bytes.length > LITTLE ? deflate(bytes) : zlibSync(bytes);
  }

  private async written(
    items: Iterable<PaintItem | InkItem>,
    resourceDict: PDFDict,
    { toUserSpace, clip, isArtifact }: PaintPlace,
  ): Promise<ContentWriter> {
    const resources = new ResourceNames(resourceDict, this.states);
    const writer = new ContentWriter();
    if (isArtifact) writer.write('BMC', '/Artifact');
    writer.save();
    writer.transform(toUserSpace);
    if (clip) {
      writer.write('re', clip.x, clip.y, clip.width, clip.height);
      writer.write('W n');
    }
    for (const item of items) {
      if (item.kind === 'ink') this.fillInk(writer, resources, item.mark);
      else await this.item(writer, resources, item);
    }
    writer.restore();
    if (isArtifact) writer.write('EMC');
    return writer;
  }

  /** One after the other: all outlines of a full page at once would not fit into a browser's memory. */
  private *itemsOf(marks: readonly Mark[]): Iterable<PaintItem | InkItem> {
    for (const mark of marks) {
      if (mark.kind === 'stroke' && isFilledInk(mark.style)) yield { kind: 'ink', mark };
      else yield* this.ready.items.get(mark) ?? paintMark(mark);
    }
  }

  private fillInk(writer: ContentWriter, resources: ResourceNames, mark: MarkOf<'stroke'>): void {
    const { colour, opacity, blend } = inkFill(mark.style);
    writer.set('gs', resources.state(opacity, blend));
    writer.set('rg', this.colour(colour));
    const written = this.ready.ink.of(mark);
    if (written) writer.written(written);
    else writer.ink(outlineCorners(mark));
  }

  private item(writer: ContentWriter, resources: ResourceNames, item: PaintItem): Promise<void> | void {
    switch (item.kind) {
      case 'fill':
        writer.set('gs', resources.state(item.opacity, item.blend));
        writer.set('rg', this.colour(item.colour));
        writer.fill(item.path, item.rule === 'evenodd' ? 'f*' : 'f');
        return;
      case 'line':
        return this.line(writer, resources, item);
      case 'text':
        return item.fallback ? this.textPicture(writer, resources, item) : this.text(writer, resources, item);
      case 'picture':
        return this.picture(writer, resources, item);
    }
  }

  private line(writer: ContentWriter, resources: ResourceNames, item: PaintOf<'line'>): void {
    writer.set('gs', resources.state(item.opacity, 'normal'));
    writer.set('RG', this.colour(item.colour));
    writer.set('w', item.width);
    writer.set('J', ROUND);
    writer.set('j', ROUND);
    writer.set('d', `[${item.dash.join(' ')}] 0`);
    writer.path(item.path);
    writer.write('S');
  }

  /** The operands of a colour, worked out once. */
  private colour(hex: string): string {
    let operands = this.colours.get(hex);
    if (operands === undefined) this.colours.set(hex, (operands = colourOperands(hex)));
    return operands;
  }

  private async text(writer: ContentWriter, resources: ResourceNames, item: PaintOf<'text'>): Promise<void> {
    const font = await this.font(item.face);
    writer.save();
    if (item.matrix) writer.transform(item.matrix);
    writer.set('gs', resources.state(1, 'normal'));
    writer.set('rg', this.colour(item.colour));
    writer.write('BT');
    writer.write('Tf', resources.font(font), item.size);
    writer.write('Tm', 1, 0, 0, -1, item.x, item.y);
    writer.write('Tj', this.encoded(font, item.text));
    writer.write('ET');
    writer.restore();
  }

  /** The glyphs of a text. Characters that stand for themselves are looked up once. */
  private encoded(font: PDFFont, text: string): string {
    if (!standsAlone(text)) return String(font.encodeText(text));
    const known = this.glyphs.get(font) ?? new Map<string, string>();
    this.glyphs.set(font, known);
    let glyphs = '';
    for (const character of text) {
      let glyph = known.get(character);
      if (glyph === undefined) known.set(character, (glyph = font.encodeText(character).asString()));
      glyphs += glyph;
    }
    return `<${glyphs}>`;
  }

  private async textPicture(
    writer: ContentWriter,
    resources: ResourceNames,
    item: PaintOf<'text'>,
  ): Promise<void> {
    const picture = await this.sources.textPicture(item);
    const image = await this.doc.embedPng(picture.bytes);
    const bottom = item.y - picture.baseline + picture.height;
    writer.save();
    if (item.matrix) writer.transform(item.matrix);
    writer.set('gs', resources.state(1, 'normal'));
    writer.transform([picture.width, 0, 0, -picture.height, item.x, bottom]);
    writer.write('Do', resources.image(image));
    writer.restore();
  }

  private async picture(
    writer: ContentWriter,
    resources: ResourceNames,
    item: PaintOf<'picture'>,
  ): Promise<void> {
    const image = await this.image(item.material);
    if (!image) return;
    const { crop } = item;
    const [width, height] = [item.width / crop.width, item.height / crop.height];
    const [left, top] = [item.x - crop.x * width, item.y - crop.y * height];
    writer.save();
    if (item.matrix) writer.transform(item.matrix);
    writer.write('re', item.x, item.y, item.width, item.height);
    writer.write('W n');
    writer.set('gs', resources.state(item.opacity, 'normal'));
    writer.transform([width, 0, 0, -height, left, top + height]);
    writer.write('Do', resources.image(image));
    writer.restore();
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
