import { PDFDocument } from '@cantoo/pdf-lib';
import { zipSync, strToU8 } from 'fflate';
import { chmodSync, existsSync, mkdtempSync, readFileSync, writeFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { tmpdir } from 'node:os';
import { dirname, join } from 'node:path';
import { afterAll, beforeAll, describe, expect, it, vi } from 'vitest';
import { documentKind } from '../src/documents/documentKind.js';
import { lettersWithoutFont, rangesIn } from '../src/documents/fontCover.js';
import { speakerNotes } from '../src/documents/speakerNotes.js';
import { LiveClient } from './helpers/live.js';
import { pdfWith } from './helpers/pdfs.js';
import type { TestServer } from './helpers/server.js';
import { Client, signedIn, startServer } from './helpers/server.js';

let server: TestServer;
let teacher: Client;

beforeAll(async () => {
  server = await startServer({ DOODLA_OFFICE_SECONDS: '100' });
  teacher = await signedIn(server);
});
afterAll(() => server.remove());

/** Files that nobody here wrote: of the docx4js package, and a template that comes with LibreOffice. */
const samples = join(
  dirname(createRequire(import.meta.url).resolve('docx4js/package.json')),
  '__tests__/files',
);
const TEMPLATE = '/usr/lib/libreoffice/share/template/common/presnt/Beehive.otp';

async function pagesOf(lesson: string) {
  const live = await LiveClient.connect(server.url, { cookie: teacher.cookie });
  const { pages } = await live.open({ kind: 'lesson', id: lesson });
  live.close();
  return [...pages!].sort((a, b) => (a.order < b.order ? -1 : 1));
}

describe('documents that become pages', () => {
  it.each([
    ['slides.pptx', () => readFileSync(join(samples, 'loader.pptx'))],
    ['text.docx', () => readFileSync(join(samples, 'loader.docx'))],
    ['words.rtf', () => Buffer.from('{\\rtf1\\ansi Arches push outwards.\\par}')],
    ['words.md', () => Buffer.from('# Arches\n\n- push\n- outwards\n\n<script>alert(1)</script>')],
    ['words.txt', () => Buffer.from('Arches push outwards.\n')],
  ])(
    '%s',
    async (name, bytes) => {
      const { lesson, message } = await teacher.upload(name, bytes());
      expect(message).toBeUndefined();
      expect(lesson!.title).toBe(name.split('.')[0]);
      const pages = await pagesOf(lesson!.id);
      expect(pages.length).toBeGreaterThan(0);
      expect(pages[0]!.surface.kind).toBe('pdf');
    },
    60_000,
  );

  it.skipIf(!existsSync(TEMPLATE))(
    'an OpenDocument presentation',
    async () => {
      const { lesson } = await teacher.upload('template.odp', readFileSync(TEMPLATE));
      expect((await pagesOf(lesson!.id)).length).toBeGreaterThan(0);
    },
    60_000,
  );

  it('go where they are wanted, all pages or some', async () => {
    const { lesson } = await teacher.upload('a.pdf', await pdfWith([300, 200], [310, 200]));
    const [first] = await pagesOf(lesson!.id);
    const more = await pdfWith([410, 200], [420, 200], [430, 200], [440, 200]);
    const query = `after=${first!.id}&pages=${encodeURIComponent('4, 1-2')}`;
    const body = await send<{ pages: string[] }>(`/api/lessons/${lesson!.id}/documents?${query}`, more);
    expect(body.pages).toHaveLength(3);
    const widths = (await pagesOf(lesson!.id)).map(({ width }) => Math.round((width * 72) / 96));
    expect(widths).toEqual([300, 440, 410, 420, 310]);
  });

  it('may have more pages than can be brought in at once, of which some are', async () => {
    const { lesson } = await teacher.upload('a.pdf', await pdfWith([300, 200]));
    const long = await pdfWith(...Array.from({ length: 715 }, (_, i): [number, number] => [100 + i, 200]));
    const { message } = await teacher.upload('long.pdf', long);
    expect(message).toMatch(/715 pages, and 500 can be brought in at once/);
    const looked = await send<{ material: string; count: number }>('/api/documents', long);
    expect(looked).toMatchObject({ count: 715, remarks: [] });
    const to = `/api/lessons/${lesson!.id}/documents/${looked.material}`;
    const { body } = await teacher.send<{ pages: string[] }>('POST', `${to}?pages=2,715,3`);
    expect(body.pages).toHaveLength(3);
    const widths = (await pagesOf(lesson!.id)).map(({ width }) => Math.round((width * 72) / 96));
    expect(widths).toEqual([300, 101, 814, 102]);
    expect((await teacher.send('POST', `${to}?pages=716`)).body.message).toMatch(/has 715 pages/);
    // Nobody else takes pages of it.
    expect((await new Client(server.url).send('POST', `${to}?pages=1`)).status).toBe(401);
  });

  it('is refused at the door where a page is longer than can be written on', async () => {
    // The longest that a page can be without a unit of its own (ISO 32000-1 annex C.2).
    expect((await teacher.upload('long.pdf', await pdfWith([300, 14_400]))).lesson).toBeDefined();
    const { message } = await teacher.upload('longer.pdf', await pdfWith([300, 300], [300, 200_000]));
    expect(message).toMatch(/Page 2 .* more than 5 metres/);
  });
});

/** Sends a document. Returns the last line of the answer. */
async function send<T>(to: string, bytes: Uint8Array, name = 'b.pdf'): Promise<T> {
  const form = new FormData();
  form.append('file', new Blob([bytes as Uint8Array<ArrayBuffer>]), name);
  const { body } = await teacher.send<unknown>('POST', to, form);
  return typeof body === 'string' ? (JSON.parse(body.trim().split('\n').at(-1)!) as T) : (body as T);
}

describe('what others have written on a document', () => {
  it('becomes marks that can be changed and taken back, on its pages in the lesson', async () => {
    const doc = await PDFDocument.create();
    const page = doc.addPage([300, 200]);
    doc.addPage([300, 200]);
    const ink = {
      Type: 'Annot',
      Subtype: 'Ink',
      Rect: [0, 0, 90, 90],
      InkList: [[10, 10, 50, 60]],
      C: [1, 0, 0],
    };
    page.node.addAnnot(doc.context.register(doc.context.obj(ink)));
    const { lesson, material } = await send<{ lesson: { id: string }; material: string }>(
      '/api/lessons',
      await doc.save(),
    );
    const path = (id: string) => `/api/lessons/${lesson.id}/documents/${id}/annotations`;
    expect((await teacher.send('POST', path(material))).body).toMatchObject({
      marks: 1,
      step: { ofPages: true },
    });
    const live = await LiveClient.connect(server.url, { cookie: teacher.cookie });
    const opened = await live.open({ kind: 'lesson', id: lesson.id });
    const surfaces = opened.pages!.map(({ surface }) => (surface as { material: string }).material);
    expect(surfaces).toHaveLength(2);
    expect(surfaces[0]).not.toBe(material);
    expect(surfaces[1]).toBe(surfaces[0]);
    // What is shown under the marks has them no more.
    const bare = await fetch(`${server.url}/api/materials/${surfaces[0]}/file`, {
      headers: { cookie: teacher.cookie },
    });
    const left = await PDFDocument.load(await bare.arrayBuffer());
    expect(left.getPage(0).node.Annots()?.size() ?? 0).toBe(0);
    const again = await teacher.send('POST', path(surfaces[0]!));
    expect(again.body.message).toMatch(/can become marks/);
    live.close();
    const other = new Client(server.url);
    expect((await other.send('POST', path(material))).status).toBe(401);
  });
});

describe('letters that no font has', () => {
  it('are named', async () => {
    const folder = mkdtempSync(join(tmpdir(), 'doodla-fonts-'));
    const list = join(folder, 'fc-list');
    writeFileSync(list, '#!/bin/sh\necho "20-7e a0-ff 30a2"\necho "2030"\n');
    chmodSync(list, 0o755);
    vi.stubEnv('PATH', `${folder}:${process.env.PATH}`);
    // Neither joiners, nor marks on letters, nor signs of a font's own need one.
    expect(await lettersWithoutFont('Zoë アチ‰\u200d\u0301\uf0b7𝄞')).toBe('チ𝄞');
    vi.unstubAllEnvs();
    expect(rangesIn('20-7e a0\n\n1d100-1d126')).toEqual([
      [0x20, 0x7e],
      [0xa0, 0xa0],
      [0x1d100, 0x1d126],
    ]);
  });

  it('are none of Latin, Greek and Cyrillic on a computer that can turn documents into pages', async () => {
    expect(await lettersWithoutFont('Zażółć Ωμέγα Щука')).toBe('');
  });

  it('are said when slides with them come in', async () => {
    // A letter of the block for private agreement would need none; this one is of a script that no font here has.
    const words = Buffer.from('Arches \u{1E900}\u{10F70}\u{11F04} push.\n');
    const missing = await lettersWithoutFont('\u{1E900}\u{10F70}\u{11F04}');
    const { remarks } = await send<{ remarks: { message: string }[] }>('/api/lessons', words, 'words.txt');
    expect(remarks.map(({ message }) => /show as boxes/.test(message))).toEqual(missing === '' ? [] : [true]);
  });
});

describe('a document', () => {
  it('is known by its content and not by its name', async () => {
    expect(documentKind(await pdfWith([9, 9]), 'x.pptx')).toBe('pdf');
    expect(documentKind(readFileSync(join(samples, 'loader.pptx')), 'x.pdf')).toBe('pptx');
    expect(documentKind(readFileSync(join(samples, 'loader.docx')), '')).toBe('docx');
    const closed = Buffer.concat([
      Buffer.from('d0cf11e0a1b11ae1', 'hex'),
      Buffer.from('EncryptedPackage', 'utf16le'),
    ]);
    expect(() => documentKind(closed, 'x.pptx')).toThrow(/protected with a password/);
    expect(documentKind(closed.subarray(0, 8), 'x.pps')).toBe('ppt');
    expect(() => documentKind(Buffer.from('MZ\x90\0'), 'x.docx')).toThrow(/cannot be taken in/);
    expect(() => documentKind(Buffer.from([1, 0, 2]), 'x.txt')).toThrow(/cannot be taken in/);
    expect(() => documentKind(zipSync({ 'a.exe': strToU8('x') }), 'x.docx')).toThrow(/cannot be taken in/);
  });

  it('that unfolds to far more than it should is not opened', () => {
    const bomb = zipSync({ 'word/document.xml': new Uint8Array(60_000_000) }, { level: 9 });
    expect(bomb.length).toBeLessThan(100_000);
    expect(() => documentKind(bomb, 'x.docx')).toThrow(/unfolds to far more/);
  });

  it('has speaker notes where its format has them', () => {
    const notes = (text: string) =>
      `<p:notes><p:sp><p:nvPr><p:ph type="sldNum"/></p:nvPr><a:t>1</a:t></p:sp><p:sp><p:nvPr><p:ph type="body"/></p:nvPr><a:p><a:t>${text}</a:t></a:p><a:p><a:t>then wait</a:t></a:p></p:sp></p:notes>`;
    const pptx = zipSync({
      'ppt/presentation.xml': strToU8('<p:sldId id="1" r:id="r2"/><p:sldId id="2" r:id="r1"/>'),
      'ppt/_rels/presentation.xml.rels': strToU8(
        '<Relationship Id="r1" Target="slides/slide1.xml"/><Relationship Id="r2" Target="slides/slide2.xml"/>',
      ),
      'ppt/slides/slide1.xml': strToU8('<p:sld >'),
      'ppt/slides/slide2.xml': strToU8('<p:sld >'),
      'ppt/slides/_rels/slide1.xml.rels': strToU8(
        '<Relationship Id="r1" Target="../notesSlides/notesSlide1.xml"/>',
      ),
      'ppt/notesSlides/notesSlide1.xml': strToU8(notes('Ask about piers &amp; arches')),
    });
    expect(speakerNotes(pptx, 'pptx')).toEqual(['', 'Ask about piers & arches\nthen wait']);
    const odp = zipSync({
      'content.xml': strToU8(
        '<draw:page draw:name="1"><presentation:notes><text:p>Say <text:span>hello</text:span></text:p></presentation:notes></draw:page><draw:page draw:name="2"/>',
      ),
    });
    expect(speakerNotes(odp, 'odp')).toEqual(['Say hello', '']);
    const page = (style: string, text: string) =>
      `<draw:page draw:style-name="${style}"><presentation:notes><text:p>${text}</text:p></presentation:notes></draw:page>`;
    const hiding = zipSync({
      'content.xml': strToU8(
        `<style:style style:name="dp1" style:family="drawing-page"><style:drawing-page-properties/></style:style>
         <style:style style:name="dp2" style:family="drawing-page"><style:drawing-page-properties presentation:visibility="hidden"/></style:style>
         ${page('dp1', 'one')}${page('dp2', 'not shown')}${page('dp1', 'three')}`,
      ),
    });
    expect(speakerNotes(hiding, 'odp')).toEqual(['one', 'three']);
    expect(speakerNotes(Buffer.from('nothing'), 'pptx')).toEqual([]);
  });
});
