import type { PDFDocument, PDFFont, PDFImage, PDFName, PDFPage } from '@cantoo/pdf-lib';
import { parseHex } from '../colour/contrast.js';
import type { Matrix } from '../geometry/matrix.js';
import type { Rect } from '../geometry/rect.js';
import type { Mark } from '../marks/mark.js';
import type { Blend, PaintItem, PaintOf } from '../paint/items.js';
import { paintMark } from '../paint/paint.js';
import { loadFace } from '../text/faceTables.js';
import type { Face } from '../text/font.js';
import { ContentWriter } from './contentWriter.js';
import type { HandoutSources } from './sources.js';

/** Line caps and joins (ISO 32000-1 tables 54 and 55). */
const ROUND = 1;
const BLEND_MODES: Record<Blend, string> = { normal: 'Normal', multiply: 'Multiply' };

/** Where page units lie in a page's own space, and the part of the page that is shown there, if not all. */
interface PaintPlace {
  toUserSpace: Matrix;
  clip?: Rect | undefined;
}

/** Draws marks into pages of one PDF document. */
export class PdfPainter {
  private readonly fonts = new Map<Face, Promise<PDFFont>>();
  private readonly images = new Map<string, Promise<PDFImage | undefined>>();

  constructor(
    private readonly doc: PDFDocument,
    private readonly sources: HandoutSources,
  ) {}

  /** Puts marks over what the page already shows, as `paintItems` does. */
  async paint(page: PDFPage, marks: readonly Mark[], place: PaintPlace): Promise<void> {
    await loadFaces(marks);
    if (marks.length > 0) await this.paintItems(page, itemsOf(marks), place);
  }

  /** Draws what a renderer would, in page units. */
  async paintItems(
    page: PDFPage,
    items: Iterable<PaintItem>,
    { toUserSpace, clip }: PaintPlace,
  ): Promise<void> {
    const resources = new PageResources(page);
    const writer = new ContentWriter();
    writer.save();
    writer.transform(toUserSpace);
    if (clip) {
      writer.write('re', clip.x, clip.y, clip.width, clip.height);
      writer.write('W n');
    }
    for (const item of items) await this.item(writer, resources, item);
    writer.restore();
    const { context } = this.doc;
    const stream = context.stream(writer.finish(), { Filter: 'FlateDecode' });
    page.node.addContentStream(context.register(stream));
  }

  private item(writer: ContentWriter, resources: PageResources, item: PaintItem): Promise<void> | void {
    switch (item.kind) {
      case 'fill':
        writer.set('gs', resources.state(item.opacity, item.blend));
        writer.set('rg', ...parseHex(item.colour));
        writer.path(item.path);
        writer.write(item.rule === 'evenodd' ? 'f*' : 'f');
        return;
      case 'line':
        return writeLine(writer, resources, item);
      case 'text':
        return item.fallback ? this.textPicture(writer, resources, item) : this.text(writer, resources, item);
      case 'picture':
        return this.picture(writer, resources, item);
    }
  }

  private async text(writer: ContentWriter, resources: PageResources, item: PaintOf<'text'>): Promise<void> {
    const font = await this.font(item.face);
    writer.save();
    if (item.matrix) writer.transform(item.matrix);
    writer.set('gs', resources.state(1, 'normal'));
    writer.set('rg', ...parseHex(item.colour));
    writer.write('BT');
    writer.write('Tf', resources.font(font), item.size);
    writer.write('Tm', 1, 0, 0, -1, item.x, item.y);
    writer.write('Tj', String(font.encodeText(item.text)));
    writer.write('ET');
    writer.restore();
  }

  private async textPicture(
    writer: ContentWriter,
    resources: PageResources,
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
    resources: PageResources,
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

/** Names of fonts, pictures and graphics states in one page's resources. */
class PageResources {
  private readonly names = new Map<unknown, string>();

  constructor(private readonly page: PDFPage) {}

  font(font: PDFFont): string {
    return this.named(font, () => this.page.node.newFontDictionary(font.name, font.ref));
  }

  image(image: PDFImage): string {
    return this.named(image, () => this.page.node.newXObject('Picture', image.ref));
  }

  /** Opacity and blend mode as a graphics state (ISO 32000-1 table 58, entries CA, ca and BM). */
  state(opacity: number, blend: Blend): string {
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

  private named(key: unknown, make: () => PDFName): string {
    const name = this.names.get(key) ?? String(make());
    this.names.set(key, name);
    return name;
  }
}

/** Makes sure that all faces of the marks are laid out by their own widths. */
async function loadFaces(marks: readonly Mark[]): Promise<void> {
  const written = marks.filter(({ kind }) => kind !== 'stroke');
  for (const item of itemsOf(written)) if (item.kind === 'text') await loadFace(item.face);
}

/** One after the other: all outlines of a full page at once would not fit into a browser's memory. */
function* itemsOf(marks: readonly Mark[]): Iterable<PaintItem> {
  for (const mark of marks) yield* paintMark(mark);
}

function writeLine(writer: ContentWriter, resources: PageResources, item: PaintOf<'line'>): void {
  writer.set('gs', resources.state(item.opacity, 'normal'));
  writer.set('RG', ...parseHex(item.colour));
  writer.set('w', item.width);
  writer.set('J', ROUND);
  writer.set('j', ROUND);
  writer.set('d', `[${item.dash.join(' ')}]`, 0);
  writer.path(item.path);
  writer.write('S');
}
