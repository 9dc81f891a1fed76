import {
  PDFArray,
  PDFDict,
  PDFDocument,
  PDFHexString,
  PDFName,
  PDFOperator,
  PDFOperatorNames,
  PDFString,
  rgb,
  StandardFonts,
} from '@cantoo/pdf-lib';
import type { PDFPage, PDFRef } from '@cantoo/pdf-lib';
import { describe, expect, it } from 'vitest';
import type { Loss } from '../src/handout/index.js';
import { handout, line, pdfPage, withPages } from './helpers/originals.js';
import { opened, shownBy } from './helpers/render.js';

/** An annotation that looks like a filled rectangle (ISO 32000-1 §12.5.5). */
function annotate(doc: PDFDocument, page: PDFPage, set: Record<string, unknown> = {}): PDFRef {
  const look = doc.context.stream('1 0 0 rg 0 0 10 10 re f', { BBox: [0, 0, 10, 10] });
  const annotation = doc.context.obj({
    Type: 'Annot',
    Subtype: 'Square',
    Rect: [100, 80, 200, 120],
    AP: { N: doc.context.register(look) },
    ...(set as object),
  });
  const ref = doc.context.register(annotation);
  page.node.addAnnot(ref);
  return ref;
}

describe('annotations of an original', () => {
  it('lie under what is written on them, where they lay', async () => {
    const bytes = await withPages(1, (doc, [page]) => annotate(doc, page!));
    const before = await shownBy(bytes);
    expect(before(150, 100)).toBe('#ff0000');
    const after = await shownBy(await handout(bytes, [0], [line]));
    expect(after(150, 100)).toBe('#0000ff');
    for (const [x, y] of [
      [150, 85],
      [150, 117],
      [105, 85],
      [95, 85],
      [205, 117],
      [150, 75],
    ] as const)
      expect(after(x, y)).toBe(before(x, y));
  });

  it('stay hidden where they are, and stay what they are on a page without marks', async () => {
    const hidden = await withPages(1, (doc, [page]) => annotate(doc, page!, { F: 2 }));
    expect((await shownBy(await handout(hidden, [0], [line])))(150, 85)).toBe('#ffffff');
    const bytes = await withPages(1, (doc, [page]) => annotate(doc, page!));
    const doc = await PDFDocument.load(await handout(bytes, [0]));
    expect(doc.getPage(0).node.Annots()!.size()).toBe(1);
  });

  it('that are broken are left alone', async () => {
    const bytes = await withPages(1, (doc, [page]) => {
      annotate(doc, page!, { Rect: [1, 2] });
      annotate(doc, page!, { AP: { N: 7 } });
      annotate(doc, page!, { AP: 'x', AS: PDFName.of('On') });
    });
    const doc = await PDFDocument.load(await handout(bytes, [0], [line]));
    expect(doc.getPage(0).node.Annots()!.size()).toBe(3);
  });
});

describe('fields of a form', () => {
  async function filled(value: string) {
    return withPages(1, (doc, [page]) => {
      const field = doc.getForm().createTextField('answer');
      field.addToPage(page!, { x: 20, y: 20, width: 200, height: 30 });
      field.acroField.dict.set(PDFName.of('V'), PDFHexString.fromText(value));
      for (const widget of field.acroField.getWidgets()) widget.dict.delete(PDFName.of('AP'));
    });
  }

  it.each(['An arch', 'Арка и балка'])(
    'that say what they hold but not how it looks are shown: %s',
    async (value) => {
      const before = await filled(value);
      const after = await handout(before, [0]);
      expect(await fieldsOf(after)).toEqual([
        { fieldName: 'answer', fieldValue: value, hasAppearance: true },
      ]);
      // Where only some pages are taken, they come along.
      const two = await PDFDocument.load(before, { updateMetadata: false });
      two.addPage();
      const losses: Loss[] = [];
      const bytes = await two.save({ updateFieldAppearances: false });
      expect(await fieldsOf(await handout(bytes, [0], [], losses))).toEqual(await fieldsOf(after));
      expect(losses).toEqual([]);
    },
  );

  it('can still be filled in, but for those that lie under what is written', async () => {
    const bytes = await withPages(1, (doc, [page]) => {
      const form = doc.getForm();
      form.createTextField('above').addToPage(page!, { x: 20, y: 20, width: 200, height: 20 });
      form.createTextField('places.under').addToPage(page!, { x: 20, y: 90, width: 200, height: 20 });
      form.createTextField('places.beside').addToPage(page!, { x: 20, y: 50, width: 200, height: 20 });
    });
    const losses: Loss[] = [];
    const after = await handout(bytes, [0], [line], losses);
    expect((await fieldsOf(after)).map(({ fieldName }) => fieldName)).toEqual(['above', 'places.beside']);
    expect(losses).toEqual(['fields']);
    expect((await shownBy(after))(150, 100)).toBe('#0000ff');
    const form = (await PDFDocument.load(after)).getForm();
    expect(form.getFields().map((field) => field.getName())).toEqual(['above', 'places.beside']);
  });

  it('of pages that are taken can be filled in there, those of other pages stay behind, and a page twice has its own', async () => {
    const bytes = await withPages(3, (doc, pages) => {
      const form = doc.getForm();
      const name = form.createTextField('name');
      for (const page of pages) name.addToPage(page, { x: 20, y: 20, width: 100, height: 20 });
      form.createTextField('load.first').addToPage(pages[0]!, { x: 20, y: 50, width: 100, height: 20 });
      form.createTextField('load.second').addToPage(pages[1]!, { x: 20, y: 50, width: 100, height: 20 });
      const truss = form.createRadioGroup('truss');
      truss.addOptionToPage('yes', pages[1]!, { x: 150, y: 50, width: 20, height: 20 });
      truss.addOptionToPage('no', pages[2]!, { x: 150, y: 50, width: 20, height: 20 });
    });
    const twice = { ...pdfPage(1), id: 'again' };
    const doc = await PDFDocument.load(await handout(bytes, [1, twice]));
    const form = doc.getForm();
    const names = form.getFields().map((field) => field.getName());
    expect(names.sort()).toEqual([
      'load (2).second',
      'load.second',
      'name',
      'name (2)',
      'truss',
      'truss (2)',
    ]);
    form.getTextField('name').setText('Wren');
    expect(form.getTextField('name (2)').getText()).toBeUndefined();
    expect(form.getTextField('name').acroField.getWidgets()).toHaveLength(1);
    expect(form.getRadioGroup('truss').acroField.getWidgets()).toHaveLength(1);
    const filled = await opened(await doc.save());
    const shown = (await (await filled.getPage(1)).getAnnotations()) as Record<string, unknown>[];
    expect(shown.find(({ fieldName }) => fieldName === 'name')).toMatchObject({ fieldValue: 'Wren' });
  });
});

/** The fields of the first page as pdf.js reads them. */
async function fieldsOf(file: Uint8Array) {
  const page = await (await opened(file)).getPage(1);
  const annotations = (await page.getAnnotations()) as Record<string, unknown>[];
  return annotations
    .filter(({ subtype }) => subtype === 'Widget')
    .map(({ fieldName, fieldValue, hasAppearance }) => ({ fieldName, fieldValue, hasAppearance }));
}

describe('layers of an original', () => {
  async function layered(config: (layers: { shown: PDFRef; hidden: PDFRef }) => Record<string, unknown>) {
    return withPages(1, (doc, [page]) => {
      const layer = (name: string) =>
        doc.context.register(doc.context.obj({ Type: 'OCG', Name: PDFString.of(name) }));
      const layers = { shown: layer('Questions'), hidden: layer('Answers') };
      page!.node.normalize();
      page!.node
        .Resources()!
        .set(PDFName.of('Properties'), doc.context.obj({ Questions: layers.shown, Answers: layers.hidden }));
      Object.entries({ Questions: 20, Answers: 120 }).forEach(([name, x]) => {
        const tag = [PDFName.of('OC'), PDFName.of(name)];
        page!.pushOperators(PDFOperator.of(PDFOperatorNames.BeginMarkedContentSequence, tag));
        page!.drawRectangle({ x, y: 50, width: 50, height: 50, color: rgb(0, 1, 0) });
        page!.pushOperators(PDFOperator.of(PDFOperatorNames.EndMarkedContent));
      });
      doc.catalog.set(
        PDFName.of('OCProperties'),
        doc.context.obj({ OCGs: [layers.shown, layers.hidden], D: config(layers) as never }),
      );
    });
  }

  it.each<[string, Parameters<typeof layered>[0]]>([
    ['by the list of those that are off', ({ hidden }) => ({ OFF: [hidden] })],
    ['by all being off but some', ({ shown }) => ({ BaseState: 'OFF', ON: [shown] })],
  ])('stay hidden, told %s', async (_, config) => {
    const bytes = await layered(config);
    for (const file of [bytes, await handout(bytes, [0], [line])]) {
      const at = await shownBy(file);
      expect([at(45, 125), at(145, 125)]).toEqual(['#00ff00', '#ffffff']);
    }
  });
});

describe('links and contents of an original', () => {
  /** Three pages; on the first a link to each by name, by place and by action, and a contents list. */
  async function linked() {
    return withPages(3, async (doc, pages) => {
      const font = await doc.embedFont(StandardFonts.Helvetica);
      pages.forEach((page, i) => page.drawText(`Page ${i + 1}`, { font, x: 20, y: 150 }));
      const { context } = doc;
      const place = (i: number) => [pages[i]!.ref, PDFName.of('Fit')];
      const names = context.obj({
        Limits: [PDFString.of('first'), PDFString.of('third')],
        Names: [PDFString.of('first'), place(0), PDFString.of('third'), { D: place(2) }],
      });
      doc.catalog.set(PDFName.of('Names'), context.obj({ Dests: { Kids: [context.register(names)] } }));
      const links: Record<string, unknown>[] = [
        { Dest: PDFString.of('third') },
        { Dest: place(1) },
        { A: { S: 'GoTo', D: PDFString.of('third') } },
        { A: { S: 'URI', URI: PDFString.of('https://bridges.example/') } },
        { Dest: PDFString.of('nowhere') },
      ];
      for (const link of links)
        pages[0]!.node.addAnnot(
          context.register(
            context.obj({ Type: 'Annot', Subtype: 'Link', Rect: [0, 0, 9, 9], ...(link as object) }),
          ),
        );
      const [root, one, two] = [context.nextRef(), context.nextRef(), context.nextRef()];
      const title = (text: string) => PDFHexString.fromText(text);
      context.assign(root, context.obj({ First: one, Last: two, Count: 2 }));
      context.assign(one, context.obj({ Title: title('Beams'), Parent: root, Next: two, Dest: place(1) }));
      context.assign(
        two,
        context.obj({ Title: title('Bögen'), Parent: root, Prev: one, Dest: PDFString.of('third') }),
      );
      doc.catalog.set(PDFName.of('Outlines'), root);
    });
  }

  /** Where the links of the first page lead: the index of a page, or an address. */
  async function linksOf(file: Uint8Array): Promise<unknown[]> {
    const doc = await opened(file);
    const links = (await (await doc.getPage(1)).getAnnotations()) as {
      url?: string;
      dest?: unknown[] | string;
    }[];
    const places: unknown[] = [];
    for (const { url, dest } of links) {
      const place = typeof dest === 'string' ? await doc.getDestination(dest) : dest;
      places.push(url ?? (place ? await doc.getPageIndex(place[0] as never) : dest));
    }
    return places;
  }

  it('lead where they led when all pages are handed out', async () => {
    const file = await handout(await linked(), [0, 1, 2]);
    expect(await linksOf(file)).toEqual([2, 1, 2, 'https://bridges.example/', 'nowhere']);
    const doc = await opened(file);
    const contents = await doc.getOutline();
    expect(contents.map(({ title }) => title)).toEqual(['Beams', 'Bögen']);
    expect(contents[1]!.dest).toBe('third');
  });

  it('go where their page is not handed out, and no page comes along unasked', async () => {
    const file = await handout(await linked(), [0, 2]);
    expect(await linksOf(file)).toEqual([1, 1, 'https://bridges.example/', 'nowhere']);
    const doc = await opened(file);
    expect((await doc.getOutline()).map(({ title }) => title)).toEqual(['Bögen']);
    const objects = (await PDFDocument.load(file)).context.enumerateIndirectObjects();
    const pages = objects.filter(
      ([, object]) => object instanceof PDFDict && object.lookup(PDFName.of('Type')) === PDFName.of('Page'),
    );
    expect(pages).toHaveLength(2);
  });

  it('that lead round in circles are read once', async () => {
    const bytes = await withPages(1, (doc, [page]) => {
      const item = doc.context.nextRef();
      const entry = {
        Title: PDFString.of('Round'),
        Next: item,
        First: item,
        Dest: [page!.ref, PDFName.of('Fit')],
      };
      doc.context.assign(item, doc.context.obj(entry as never));
      doc.catalog.set(PDFName.of('Outlines'), doc.context.obj({ First: item, Last: item }));
      const names = doc.context.nextRef();
      doc.context.assign(names, doc.context.obj({ Kids: [names] }));
      doc.catalog.set(PDFName.of('Names'), doc.context.obj({ Dests: names }));
      const link = doc.context.obj({ Subtype: 'Link', Rect: [0, 0, 1, 1], Dest: PDFString.of('x') });
      page!.node.set(PDFName.of('Annots'), PDFArray.withContext(doc.context));
      page!.node.Annots()!.push(link);
    });
    const doc = await opened(await handout(bytes, [0]));
    expect((await doc.getOutline()).map(({ title }) => title)).toEqual(['Round']);
  });
});
