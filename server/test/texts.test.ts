import fc from 'fast-check';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { getDocument } from 'pdfjs-dist/legacy/build/pdf.mjs';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { documentKind } from '../src/documents/documentKind.js';
import { textAsHtml } from '../src/documents/textAsHtml.js';
import { decodeText } from '../src/documents/textEncoding.js';
import { LiveClient } from './helpers/live.js';
import { signedIn, startServer } from './helpers/server.js';

/** Words of several languages; the bytes are Node's own encoders' (Encoding Standard: latin1 is windows-1252). */
const GERMAN = 'Brücken tragen Lasten über große Flüsse. Die Kräfte fließen schräg in die Widerlager.\r\n';
const GREEK = 'Οι γέφυρες μεταφέρουν φορτία πάνω από ποτάμια.\n';

describe('the encoding of a text', () => {
  it.each<[string, string, Uint8Array]>([
    ['UTF-8', GREEK, Buffer.from(GREEK)],
    ['UTF-8 with its mark', GREEK, Buffer.from(`\ufeff${GREEK}`)],
    ['windows-1252', GERMAN, Buffer.from(GERMAN, 'latin1')],
    ['UTF-16 with its mark', GERMAN, Buffer.from(`\ufeff${GERMAN}`, 'utf16le')],
    ['UTF-16 without one', GERMAN, Buffer.from(GERMAN, 'utf16le')],
    ['UTF-16, big end first', GERMAN, Buffer.from(`\ufeff${GERMAN}`, 'utf16le').swap16()],
    ['nothing', '', new Uint8Array()],
  ])('is told: %s', (_, text, bytes) => {
    expect(decodeText(bytes)).toBe(text);
    expect(documentKind(bytes, 'words.txt')).toBe('txt');
  });

  it('is none where there are bytes that no text has', () => {
    const noise = Uint8Array.from({ length: 4000 }, (_, i) => (i * 7919) % 256);
    expect(decodeText(noise)).toBeUndefined();
    expect(() => documentKind(noise, 'words.txt')).toThrow('cannot be taken in');
  });

  it('is found without a throw, whatever comes', () => {
    fc.assert(fc.property(fc.uint8Array({ maxLength: 300 }), (bytes) => void decodeText(bytes)));
  });

  it('of UTF-8 is kept whatever the words', () => {
    const words = fc.string({ unit: 'grapheme' }).filter((text) => !/[\0-\x1f]/.test(text)); // eslint-disable-line no-control-regex
    fc.assert(fc.property(words, (text) => decodeText(Buffer.from(text)) === text));
  });
});

describe('Markdown', () => {
  const folder = mkdtempSync(join(tmpdir(), 'doodla-texts-'));
  afterAll(() => rmSync(folder, { recursive: true, force: true }));

  async function html(text: string): Promise<string> {
    const path = join(folder, 'words.md');
    writeFileSync(path, text);
    return textAsHtml(path, 'md');
  }

  it('shows code as it was written, and tags as words', async () => {
    const made = await html(
      '# `a < b && c`\n\n    if (a < b) x();\n\n<script>alert(1)</script>\n\nsee <b>that</b>',
    );
    expect(made).toContain('<code>a &lt; b &amp;&amp; c</code>');
    expect(made).toContain('if (a &lt; b) x();');
    expect(made).toContain('&lt;script>alert(1)&lt;/script>');
    expect(made).toContain('see &lt;b>that&lt;/b>');
  });

  it('fetches no pictures', async () => {
    expect(await html('![an arch](http://elsewhere.example/a.png) <img src=x onerror=y>')).not.toContain(
      '<img',
    );
  });
});

describe('a Markdown text as pages', () => {
  let server: Awaited<ReturnType<typeof startServer>>;
  beforeAll(async () => {
    server = await startServer({ DOODLA_OFFICE_SECONDS: '100' });
  });
  afterAll(() => server.remove());

  it('begins with its first words, on the first page', async () => {
    const teacher = await signedIn(server);
    const { lesson } = await teacher.upload(
      'words.md',
      Buffer.from('# Arches\n\nThey push `a < b` outwards.\n'),
    );
    const live = await LiveClient.connect(server.url, { cookie: teacher.cookie });
    const { pages } = await live.open({ kind: 'lesson', id: lesson!.id });
    live.close();
    expect(pages).toHaveLength(1);
    const { material } = pages![0]!.surface as { material: string };
    const file = await fetch(`${server.url}/api/materials/${material}/file`, {
      headers: { cookie: teacher.cookie },
    });
    const doc = await getDocument({ data: new Uint8Array(await file.arrayBuffer()) }).promise;
    const { items } = await (await doc.getPage(1)).getTextContent();
    const text = items.map((item) => ('str' in item ? item.str : '')).join(' ');
    expect(text).toMatch(/Arches.*They push.*a *< *b.*outwards/);
  });
});
