import { Resvg } from '@resvg/resvg-js';
import { mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { writeReadyPictures } from '../../scripts/readyPictures.mjs';
import type { ReadyIndex } from '../src/shelf/readyPictures';
import { picturesFor, SUBJECT_NAMES } from '../src/shelf/readyPictures';

let folder: string;
let index: Record<'en' | 'de', ReadyIndex>;

beforeAll(() => {
  folder = mkdtempSync(join(tmpdir(), 'doodla-ready-'));
  writeReadyPictures(folder);
  const read = (language: string) =>
    JSON.parse(readFileSync(join(folder, 'ready', `${language}.json`), 'utf8')) as ReadyIndex;
  index = { en: read('en'), de: read('de') };
});
afterAll(() => rmSync(folder, { recursive: true, force: true }));

const named = (language: 'en' | 'de', question: string) =>
  picturesFor(index[language], 'animals', question).map(([, name]) => name);

describe('ready pictures', () => {
  it('are more than a thousand in every subject that has a name, the same ones in each language', () => {
    expect(Object.keys(index.en)).toEqual(Object.keys(SUBJECT_NAMES));
    for (const subject of Object.keys(SUBJECT_NAMES) as (keyof ReadyIndex)[]) {
      const files = (language: 'en' | 'de') => index[language][subject].map(([file]) => file).sort();
      expect(files('en').length, subject).toBeGreaterThan(15);
      expect(files('de')).toEqual(files('en'));
    }
    expect(Object.values(index.en).flat().length).toBeGreaterThan(1000);
  });

  it('are found by their names and by other words for them, best names first', () => {
    // Names and words: Unicode CLDR, annotations of 1F418, 1F309 and 1F1F8 1F1EA.
    expect(named('en', 'elephant')[0]).toBe('elephant');
    expect(named('de', 'elefant')[0]).toBe('Elefant');
    expect(named('en', 'bridge')).toContain('bridge at night');
    expect(named('de', 'brucke')).toContain('Brücke vor Nachthimmel');
    expect(named('en', 'sweden')).toEqual(['flag: Sweden']);
    expect(named('en', 'no such thing at all')).toEqual([]);
    expect(picturesFor(index.en, 'plants', ' ')).toBe(index.en.plants);
  });

  it('are SVGs that another renderer draws, each with something on it', () => {
    const all = Object.values(index.en).flat();
    // Every thirtieth: drawing all takes too long.
    for (const [file, name] of all.filter((_, i) => i % 30 === 0)) {
      const svg = readFileSync(join(folder, 'ready', `${file}.svg`), 'utf8');
      const drawn = new Resvg(svg, { fitTo: { mode: 'width', value: 48 } }).render();
      const covered = drawn.pixels.filter((value, i) => i % 4 === 3 && value > 0).length;
      expect(covered / (drawn.width * drawn.height), name).toBeGreaterThan(0.05);
    }
  });

  it('come with the licences that they are under', () => {
    const text = readFileSync(join(folder, 'ready', 'LICENSE.txt'), 'utf8');
    expect(text).toMatch(/Apache-2\.0/);
    expect(text).toMatch(/MIT/);
  });
});
