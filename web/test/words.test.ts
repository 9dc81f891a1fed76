import { parseSync } from 'vite';
import { readdirSync, readFileSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import { REFUSALS } from '@doodla/core';
import { BAD_INPUT } from '../../server/src/http/badInput';
import { pdfProblem } from '../../server/src/materials/pdfProblem';
import { afterEach, describe, expect, it } from 'vitest';
import { speakWords, t } from '../src/words';
import { de } from '../src/words/de';
import { en } from '../src/words/en';
import { pseudo, pseudoText } from '../src/words/pseudo';
import { sentenceOf } from '../src/words/sentences';
import type { TextName, Words } from '../src/words/textNames';

type Texts = Record<string, Record<string, string>>;
const flat = (words: Texts) =>
  Object.entries(words).flatMap(([part, texts]) =>
    Object.entries(texts).map(([name, text]) => [`${part}.${name}`, text] as const),
  );
const valuesIn = (text: string) =>
  [...text.matchAll(/\{\{(\w+)/g)].map(([, name]) => name).filter((name) => name !== 'what');

afterEach(() => speakWords('en', en));

describe.each([
  ['German', de],
  ['the pseudo-language', pseudo],
])('%s', (_, words: Words) => {
  const texts = Object.fromEntries(flat(words));

  it('has every text, and puts in what the English one puts in', () => {
    for (const [name, text] of flat(en)) {
      expect(texts[name], name).toBeTruthy();
      expect(new Set(valuesIn(texts[name]!)), name).toEqual(new Set(valuesIn(text)));
      expect(texts[name]!.split('<b>').length, name).toBe(text.split('<b>').length);
    }
  });

  it('quotes no text with straight marks, and ends sentences as the English one does', () => {
    for (const [name, text] of flat(en)) {
      expect(texts[name], name).not.toMatch(/"/);
      const end = /[.?…]$/.exec(text)?.[0];
      if (end && words === de) expect(texts[name]!.endsWith(end), name).toBe(true);
    }
  });
});

describe('plurals', () => {
  it.each([
    ['en', en],
    ['de', de],
  ])('of %s are those of its rules (CLDR, by Intl.PluralRules)', (tag, words) => {
    const categories = new Intl.PluralRules(tag).resolvedOptions().pluralCategories;
    const plural = /_(zero|one|two|few|many|other)$/;
    const names = flat(words).flatMap(([name]) => (plural.test(name) ? [name.replace(plural, '')] : []));
    expect(names.length).toBeGreaterThan(20);
    const there = new Set<string>(flat(words).map(([name]) => name));
    for (const name of names)
      for (const category of categories) expect(there.has(`${name}_${category}`), name).toBe(true);
  });

  it('are chosen by the count', () => {
    speakWords('de', de);
    expect([0, 1, 2].map((count) => t('sittings.pages', { count }))).toEqual([
      '0 Seiten',
      '1 Seite',
      '2 Seiten',
    ]);
    speakWords('en', en);
    expect([0, 1, 2].map((count) => t('sittings.pages', { count }))).toEqual([
      '0 pages',
      '1 page',
      '2 pages',
    ]);
  });

  it('numbers are written as the language writes them', () => {
    speakWords('de', de);
    expect(t('typing.aTextHolds', { most: 20000 })).toContain('20.000');
    expect(t('media.fetchingTheRecording', { part: 0.256 })).toMatch(/26\s%/);
    speakWords('en', en);
    expect(t('typing.aTextHolds', { most: 20000 })).toContain('20,000');
  });
});

describe('the pseudo-language', () => {
  it('is longer, written with other letters, and leaves values alone', () => {
    expect(pseudoText('Open <b>{{address}}</b> now')).toMatch(/^‹Óþéñ <b>\{\{address\}\}<\/b> ñóŵ·+›$/);
  });
});

describe('sentences of the server', () => {
  const problems = serverSentences();

  it('are in the words under their codes, as the server says them', () => {
    expect(problems.size).toBeGreaterThan(60);
    const server: Record<string, string> = en.server;
    for (const [code, sentence] of problems) expect(server[code], code).toBe(sentence);
    for (const table of [REFUSALS, BAD_INPUT])
      for (const [code, sentence] of Object.entries(table)) expect(server[code], code).toBe(sentence);
  });

  it('about documents are said with how many pages there are', () => {
    const faults = [
      'password',
      'damaged',
      'empty',
      'too-many-pages',
      'no-such-pages',
      'huge-page',
      'too-slow',
    ] as const;
    for (const fault of faults) {
      const { code, message, values } = pdfProblem({ fault, pages: 715 }, 500);
      expect(sentenceOf({ code, message: 'unknown', ...(values && { values }) })).toBe(message);
    }
  });

  it('are said in the language that is spoken, with their values', () => {
    speakWords('de', de);
    expect(
      sentenceOf({ code: 'file-too-large', message: 'This file is larger …', values: { maxMb: 50 } }),
    ).toContain('50 MB. Bitte');
  });

  it('are said as they came where there are no words for their code', () => {
    speakWords('de', de);
    expect(sentenceOf({ code: 'made-tomorrow', message: 'Something new.' })).toBe('Something new.');
  });
});

it('a name that does not exist is refused by the compiler', () => {
  // @ts-expect-error no such text
  const name: TextName = 'classroom.nothing';
  expect(name).toBeTruthy();
});

interface Node {
  type: string;
  [field: string]: unknown;
}

/** Codes and sentences of all problems that the server's own files make. */
function serverSentences(): Map<string, string> {
  const folder = fileURLToPath(new URL('../../server/src/', import.meta.url));
  const found = new Map<string, string>();
  for (const name of readdirSync(folder, { recursive: true }) as string[]) {
    if (!name.endsWith('.ts')) continue;
    const source = readFileSync(folder + name, 'utf8');
    visit(parseSync(name, source).program as unknown as Node, (node) => {
      if (node.type !== 'NewExpression' || (node.callee as Node).name !== 'Problem') return;
      const [, code, message] = node.arguments as Node[];
      const sentence = message && textOf(message, source);
      if (code?.type === 'Literal' && sentence) found.set(String(code.value), sentence);
    });
  }
  return found;
}

function visit(node: Node, see: (node: Node) => void): void {
  see(node);
  for (const value of Object.values(node))
    for (const child of Array.isArray(value) ? (value as unknown[]) : [value])
      if (typeof child === 'object' && child !== null && 'type' in child) visit(child as Node, see);
}

function textOf(node: Node, source: string): string | undefined {
  if (node.type === 'Literal') return String(node.value);
  if (node.type !== 'TemplateLiteral') return undefined;
  const values = (node.expressions as { start: number; end: number }[]).map(({ start, end }) =>
    source.slice(start, end),
  );
  const parts = node.quasis as { value: { cooked: string } }[];
  return parts.map(({ value }, i) => value.cooked + (i < values.length ? `{{${values[i]}}}` : '')).join('');
}
