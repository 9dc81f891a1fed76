import {
  PDFArray,
  PDFDict,
  PDFDocument,
  PDFHexString,
  PDFName,
  PDFOperator,
  PDFOperatorNames,
  PDFString,
} from '@cantoo/pdf-lib';
import { execFileSync } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import fc from 'fast-check';
import { afterAll, describe, expect, it } from 'vitest';
import type { Loss } from '../src/handout/index.js';
import { balanced } from '../src/handout/operators.js';
import { aPage } from './helpers/marks.js';
import { handout, line, withPages } from './helpers/originals.js';
import { opened, shownBy } from './helpers/render.js';

const folder = mkdtempSync(join(tmpdir(), 'doodla-whole-'));
afterAll(() => rmSync(folder, { recursive: true }));

const name = (text: string) => PDFName.of(text);

/** A document of three pages with all that can belong to one (ISO 32000-1 §12.4.2, §14.7, §14.9.2, §7.11.4, §14.3). */
const furnished = () =>
  withPages(3, async (doc, [first]) => {
    const { context, catalog } = doc;
    doc.setTitle('Spans');
    doc.setAuthor('Ada Fenn');
    doc.setSubject('How bridges stand');
    doc.setLanguage('cy-GB');
    await doc.attach(Buffer.from('load,sag'), 'loads.csv', { mimeType: 'text/csv' });
    catalog.set(
      name('PageLabels'),
      context.obj({ Nums: [0, { S: 'r' }, 1, { S: 'D', P: PDFString.of('B-'), St: 4 }] }),
    );
    const root = context.nextRef();
    const heading = context.register(
      context.obj({ Type: 'StructElem', S: 'H1', P: root, Pg: first!.ref, K: 0 }),
    );
    context.assign(
      root,
      context.obj({ Type: 'StructTreeRoot', K: heading, ParentTree: { Nums: [0, [heading]] } }),
    );
    catalog.set(name('StructTreeRoot'), root);
    catalog.set(name('MarkInfo'), context.obj({ Marked: true }));
    first!.node.set(name('StructParents'), context.obj(0));
    const tag = [name('H1'), context.obj({ MCID: 0 })];
    first!.pushOperators(PDFOperator.of(PDFOperatorNames.BeginMarkedContentSequence, tag as never));
    first!.pushOperators(PDFOperator.of(PDFOperatorNames.EndMarkedContent));
  });

describe('a document all of which is handed out', () => {
  it('is kept with what belongs to it', async () => {
    const losses: Loss[] = [];
    const doc = await opened(await handout(await furnished(), [0, 1, 2], [line], losses));
    expect(await doc.getPageLabels()).toEqual(['i', 'B-4', 'B-5']);
    expect(Object.keys((await doc.getAttachments()) as object)).toEqual(['loads.csv']);
    const { info } = await doc.getMetadata();
    expect(info).toMatchObject({
      Title: 'Spans',
      Author: 'Ada Fenn',
      Subject: 'How bridges stand',
      Language: 'cy-GB',
    });
    const tree = await (await doc.getPage(1)).getStructTree();
    expect(JSON.stringify(tree)).toContain('"H1"');
    expect(losses).toEqual([]);
  });

  it('takes other pages in between, and keeps the numbers of its own', async () => {
    const blank = aPage({ id: 'blank', width: 400, height: 300 });
    const file = await handout(await furnished(), [0, blank, 1, 2, aPage({ id: 'end' })], [line]);
    const doc = await opened(file);
    expect(doc.numPages).toBe(5);
    expect(await doc.getPageLabels()).toEqual(['i', '2', 'B-4', 'B-5', '5']);
    const widths = await Promise.all([1, 2, 3].map(async (n) => (await doc.getPage(n)).view[2]));
    expect(widths).toEqual([300, 300, 300]);
    expect((await doc.getPage(2)).view[3]).toBe(225);
    expect((await shownBy(file))(150, 100)).toBe('#0000ff');
  });

  it.each<[string, number[]]>([
    ['in another order', [1, 0, 2]],
    ['with a page twice', [0, 1, 2, 2]],
    ['without a page', [0, 2]],
  ])(
    'is copied page by page %s, with the numbers of the pages, and what is lost is said',
    async (_, pages) => {
      const losses: Loss[] = [];
      const doc = await opened(await handout(await furnished(), pages, [line], losses));
      const labels = ['i', 'B-4', 'B-5'];
      expect(await doc.getPageLabels()).toEqual(pages.map((page) => labels[page]));
      expect((await doc.getMetadata()).info).toMatchObject({ Title: 'Handout', Language: 'cy-GB' });
      expect(losses).toEqual(['tags', 'attachments']);
    },
  );

  it('does nothing by itself', async () => {
    const bytes = await withPages(1, (doc, [page]) => {
      const script = { S: 'JavaScript', JS: PDFString.of('app.alert("x")') };
      doc.addJavaScript('main', 'app.alert("y")');
      doc.catalog.set(name('OpenAction'), doc.context.obj(script));
      page!.node.set(name('AA'), doc.context.obj({ O: script }));
    });
    const losses: Loss[] = [];
    const file = await handout(bytes, [0], [], losses);
    expect(await (await opened(file)).getJSActions()).toBeNull();
    expect(await (await opened(file)).getOpenAction()).toBeNull();
    expect(losses).toEqual(['scripts']);
    // To open at a page is nothing that runs.
    const opens = await withPages(1, (doc, [page]) => {
      doc.catalog.set(name('OpenAction'), doc.context.obj([page!.ref, 'Fit']));
    });
    const kept = await PDFDocument.load(await handout(opens, [0], [], losses));
    expect(kept.catalog.lookup(name('OpenAction'))).toBeInstanceOf(PDFArray);
    expect(losses).toHaveLength(1);
  });

  it('is said to be signed no more', async () => {
    const bytes = await withPages(1, (doc) => {
      doc.catalog.set(name('AcroForm'), doc.context.obj({ Fields: [], SigFlags: 3 }));
    });
    const losses: Loss[] = [];
    await handout(bytes, [0], [], losses);
    expect(losses).toEqual(['signature']);
  });

  it.each([
    ['does not allow all that is done with it', ['--modify=none', '--extract=n'], ['restrictions']],
    ['allows everything', [], []],
  ])('can be opened by everybody, and it is said where its owner %s', async (_, flags, expected) => {
    const [plain, locked] = [join(folder, 'plain.pdf'), join(folder, 'locked.pdf')];
    writeFileSync(plain, await furnished());
    execFileSync('qpdf', ['--encrypt', '', 'owner', '256', ...flags, '--', plain, locked]);
    const losses: Loss[] = [];
    const file = await handout(readFileSync(locked), [0, 1, 2], [line], losses);
    expect(losses).toEqual(expected);
    const out = join(folder, 'out.pdf');
    writeFileSync(out, file);
    expect(execFileSync('qpdf', ['--show-encryption', out], { encoding: 'utf8' })).toContain('not encrypted');
    execFileSync('qpdf', ['--check', out], { stdio: 'pipe' });
    expect((await shownBy(file))(150, 100)).toBe('#0000ff');
  });

  it('is put in as pictures where it cannot be taken over, which is said', async () => {
    const losses: Loss[] = [];
    // What the handout then comes to is not asked here.
    await handout(Buffer.from('%PDF-1.7 no more'), [0], [], losses).catch(() => undefined);
    expect(losses).toEqual(['everything']);
  });
});

describe('pages that share what they show', () => {
  it('are written on one by one', async () => {
    const bytes = await withPages(2, (doc, [one, two]) => {
      const shared = doc.context.register(doc.context.obj([doc.context.register(doc.context.stream('q Q'))]));
      for (const page of [one, two]) page!.node.set(name('Contents'), shared);
    });
    const file = await handout(bytes, [0, 1], [line]);
    expect((await shownBy(file, 0))(150, 100)).toBe('#0000ff');
    expect((await shownBy(file, 1))(150, 100)).toBe('#ffffff');
  });
});

describe('an original whose states do not balance', () => {
  const text = (content: string) => {
    const change = balanced(Buffer.from(content, 'latin1'));
    return change && Buffer.from(change).toString('latin1');
  };

  it('is made to balance, and what is no operator stays', () => {
    expect(text('q 1 w Q')).toBeUndefined();
    expect(text('q 1 w Q Q')).toBe('q 1 w Q  ');
    expect(text('Q q q')).toBe('  q q\nQ\nQ');
    expect(text('(Q \\) (Q)) Tj % Q\n/Q gs <</Q 1>> [Q]')).toBe('(Q \\) (Q)) Tj % Q\n/Q gs <</Q 1>> [ ]');
    expect(text('BI /W 1 ID Q \x00Q EI Q')).toBe('BI /W 1 ID Q \x00Q EI  ');
  });

  it('does so whatever comes', () => {
    const operators = fc.array(fc.constantFrom('q', 'Q', '1 w', '(Q)', 'BI ID q EI', '/Q', '%q\n'));
    fc.assert(
      fc.property(operators, (list) => {
        const content = Buffer.from(list.join(' '));
        expect(balanced(balanced(content) ?? content)).toBeUndefined();
      }),
    );
    fc.assert(fc.property(fc.uint8Array(), (bytes) => void balanced(balanced(bytes) ?? bytes)));
  });

  // Without care, what it enlarges after a surplus restore is enlarged under the marks too, or none of them is there.
  it.each(['q Q Q 3 0 0 3 0 0 cm', 'q 3 0 0 3 200 200 cm', 'Q Q Q Q 0 0 1 1 re W n'])(
    'shows the marks where they are, in pdf.js and poppler: %s',
    async (content) => {
      const bytes = await withPages(1, (doc, [page]) => {
        page!.node.set(name('Contents'), doc.context.register(doc.context.stream(content)));
      });
      const file = await handout(bytes, [0], [line]);
      const at = await shownBy(file);
      expect([at(150, 100), at(150, 60)]).toEqual(['#0000ff', '#ffffff']);
      const path = join(folder, 'balance.pdf');
      writeFileSync(path, file);
      const picture = execFileSync('pdftoppm', ['-r', '72', path]);
      const [, width] = /^P6\s(\d+) \d+\s255\s/.exec(picture.toString('latin1'))!;
      const pixel = (x: number, y: number) => {
        const start = picture.length - 300 * 200 * 3 + (y * Number(width) + x) * 3;
        return [...picture.subarray(start, start + 3)];
      };
      expect([pixel(150, 100), pixel(150, 60)]).toEqual([
        [0, 0, 255],
        [255, 255, 255],
      ]);
    },
  );
});

describe('two documents in one handout', () => {
  it('have their contents one after the other', async () => {
    const outlined = (title: string, count: number) =>
      withPages(count, (doc, pages) => {
        const [root, item] = [doc.context.nextRef(), doc.context.nextRef()];
        const entry = { Title: PDFHexString.fromText(title), Parent: root, Dest: [pages[0]!.ref, 'Fit'] };
        doc.context.assign(item, doc.context.obj(entry as never));
        doc.context.assign(root, doc.context.obj({ First: item, Last: item, Count: 1 }));
        doc.catalog.set(name('Outlines'), root);
      });
    const files: Record<string, Uint8Array> = {
      long: await outlined('Long', 2),
      short: await outlined('Short', 1),
    };
    const page = (material: string, index: number) =>
      aPage({ id: `${material}-${index}`, surface: { kind: 'pdf', material, index } });
    const { makePdf } = await import('../src/handout/index.js');
    const bytes = await makePdf(
      [page('short', 0), page('long', 0), page('long', 1)].map((each) => ({ page: each, marks: [] })),
      { pdf: (material: string) => Promise.resolve(files[material]!) } as never,
      { title: 'Both' },
    );
    const doc = await opened(bytes);
    const contents = await doc.getOutline();
    expect(contents.map(({ title }) => title)).toEqual(['Long', 'Short']);
    const places = contents.map(({ dest }) => doc.getPageIndex((dest as never[])[0]!));
    expect(await Promise.all(places)).toEqual([1, 0]);
    expect((await PDFDocument.load(bytes)).catalog.lookup(name('Outlines'))).toBeInstanceOf(PDFDict);
  });
});
