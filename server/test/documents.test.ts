import { zipSync, strToU8 } from 'fflate';
import { existsSync, readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { dirname, join } from 'node:path';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { chosenPages } from '../dist/lessons/chosenPages.js';
import { documentKind } from '../dist/documents/documentKind.js';
import { speakerNotes } from '../dist/documents/speakerNotes.js';
import { LiveClient } from './helpers/live.js';
import { pdfWith } from './helpers/pdfs.js';
import type { Client, TestServer } from './helpers/server.js';
import { signedIn, startServer } from './helpers/server.js';

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
    const form = new FormData();
    const more = await pdfWith([410, 200], [420, 200], [430, 200], [440, 200]);
    form.append('file', new Blob([more as Uint8Array<ArrayBuffer>]), 'b.pdf');
    const query = `after=${first!.id}&pages=${encodeURIComponent('4, 1-2')}`;
    const { body } = await teacher.send<{ pages: string[] }>(
      'POST',
      `/api/lessons/${lesson!.id}/documents?${query}`,
      form,
    );
    expect(body.pages).toHaveLength(3);
    const widths = (await pagesOf(lesson!.id)).map(({ width }) => Math.round((width * 72) / 96));
    expect(widths).toEqual([300, 440, 410, 420, 310]);
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
    expect(speakerNotes(Buffer.from('nothing'), 'pptx')).toEqual([]);
  });

  it('gives the pages that a list names', () => {
    expect(chosenPages('', 3)).toEqual([0, 1, 2]);
    expect(chosenPages('2', 3)).toEqual([1]);
    expect(chosenPages('3, 1-2', 3)).toEqual([2, 0, 1]);
    for (const wrong of ['4', '2-1', 'x', '0', '1-', '-'])
      expect(() => chosenPages(wrong, 3)).toThrow(/has 3 pages/);
  });
});
