import fc from 'fast-check';
import { strFromU8, unzipSync } from 'fflate';
import { describe, expect, it } from 'vitest';
import type { MadeFile } from '../src/formats/index.js';
import { pageName, webAnnotationsFile, zipFiles } from '../src/formats/index.js';
import type { MarkChoice } from '../src/handout/index.js';
import { chosenMarks } from '../src/handout/index.js';
import type { Mark } from '../src/index.js';
import { initialsFor, standInId } from '../src/index.js';
import { aPage, aPath, aStroke, aText, common, patchOver } from './helpers/marks.js';

const by = (author: string, set: Partial<Mark> = {}) =>
  aStroke({ author, id: `of-${author}`, ...(set as object) });
const isStudent = (id: string) => id === 'ada' || id === 'ben';
const ALL: MarkChoice = { whose: 'everybody', prepared: true, covered: false };

describe('the marks that are handed out', () => {
  const prepared = [by('teacher', { id: 'prepared', order: 'a9' }), { ...patchOver('page-1'), id: 'patch' }];
  const written = [
    by('teacher'),
    by('ada'),
    by('ben'),
    by('ada', { id: 'adas-copy', space: 'student:ada' }),
    by('teacher', { id: 'corrected', space: 'student:ada' }),
    by('ben', { id: 'at-table', space: 'table:1' }),
  ];
  const ids = (choice: Partial<MarkChoice>) =>
    chosenMarks({ prepared, written }, { ...ALL, ...choice }, isStudent).map(({ id }) => id);

  it('are what all have in common, the prepared ones lowest', () => {
    expect(ids({})).toEqual(['prepared', 'of-ada', 'of-ben', 'of-teacher']);
    expect(ids({ prepared: false })).toEqual(['of-ada', 'of-ben', 'of-teacher']);
  });

  it('are those that are not of students', () => {
    expect(ids({ whose: 'teacher' })).toEqual(['prepared', 'of-teacher']);
  });

  it("are one student's, with what the teacher wrote on their copy", () => {
    expect(ids({ whose: { student: 'ada' }, prepared: false })).toEqual(['adas-copy', 'corrected', 'of-ada']);
    expect(ids({ whose: { student: 'ben' }, prepared: false })).toEqual(['at-table', 'of-ben']);
  });

  it('hide answers only where that is wanted', () => {
    expect(ids({ covered: true })).toContain('patch');
    expect(ids({ covered: true, prepared: false })).toContain('patch');
    expect(ids({})).not.toContain('patch');
  });
});

describe('pages that answer', () => {
  const answer = (of: string, space: 'class' | 'student:ada', set: Partial<Mark> = {}): Mark =>
    by('ada', { id: standInId(of, space), space, standIn: { for: of, tries: 0, taps: 0 }, ...set });
  const prepared = ['card', 'cover'].map((id) => by('teacher', { id }));
  const hidden = by('teacher', { id: 'hidden', hidden: true });
  const written = [
    answer('card', 'class'),
    answer('card', 'student:ada'),
    answer('cover', 'class', { hidden: true }),
  ];
  const ids = (choice: Partial<MarkChoice>, done = written) =>
    chosenMarks({ prepared: [...prepared, hidden], written: done }, { ...ALL, ...choice }, isStudent).map(
      ({ id }) => id,
    );

  it('are handed out as they were answered, each thing once', () => {
    expect(ids({ covered: true })).toEqual([standInId('card', 'class')]);
    expect(ids({ whose: { student: 'ada' }, covered: true })).toEqual([standInId('card', 'student:ada')]);
    expect(ids({ covered: true }, [])).toEqual(['card', 'cover']);
  });

  it('have what is shown only by a tap where answers are not covered', () => {
    expect(ids({}, [])).toEqual(['card', 'cover', 'hidden']);
    expect(ids({})).toEqual(['hidden', standInId('card', 'class')]);
  });
});

describe('an exercise that is handed out', () => {
  const place = by('teacher', {
    id: 'place',
    rule: { takes: { things: ['card'], sendsBack: true, snaps: true } },
  });
  const card = aText({ id: 'card', x: 700, rule: { moves: { movement: { how: 'freely' }, copies: false } } });
  const field = aText({
    id: 'field',
    text: '____',
    rule: { fill: { as: 'words', answers: ['ice'], typos: false } },
  });
  const ring = by('teacher', { id: 'ring', hidden: true });
  const tap = { steps: [{ do: 'show', marks: ['ring'] }], once: false, is: 'right' } as const;
  const choice = by('teacher', { id: 'choice', rule: { tap } });
  const prepared = [place, card, field, ring, choice];
  const written = [
    by('ada', { id: standInId('card', 'class'), standIn: { for: 'card', tries: 2, taps: 0 } }),
    by('ada', { id: 'a line' }),
  ];
  const handed = (set: Partial<MarkChoice>) =>
    chosenMarks({ prepared, written }, { ...ALL, ...set }, isStudent);
  const ids = (set: Partial<MarkChoice>) => handed(set).map(({ id }) => id);

  it('is empty on paper, without what only an answer shows', () => {
    expect(ids({ answers: 'none' }).sort()).toEqual(['a line', 'card', 'choice', 'field', 'place']);
  });

  it('is as it was answered', () => {
    expect(ids({}).sort()).toEqual(['a line', standInId('card', 'class'), 'choice', 'field', 'place']);
    expect(ids({})).not.toContain('ring');
  });

  it('has what is right as a key, for the class and on the copy of a student', () => {
    const key = handed({ answers: 'key' });
    const of = (id: string) => key.find(({ standIn }) => standIn?.for === id);
    expect(of('field')).toMatchObject({ text: 'ice' });
    expect(of('card')?.standIn).toMatchObject({ at: 'place', tries: 0 });
    expect(of('ring')?.hidden).toBe(false);
    expect(key.map(({ id }) => id)).not.toContain('card');
    const own = chosenMarks(
      { prepared, written },
      { ...ALL, answers: 'key', whose: { student: 'ada' } },
      isStudent,
    );
    expect(own.filter(({ standIn }) => standIn)).toEqual(key.filter(({ standIn }) => standIn));
    expect(ids({ answers: 'key', prepared: false })).toEqual(['a line']);
  });
});

describe('initials', () => {
  const of = (names: string[]) => [...initialsFor(names.map((name, i) => ({ id: `${i}`, name }))).values()];

  it('stand for names and tell people apart', () => {
    expect(of(['Ada Lind', 'ben', 'Émile Zola-Roux', 'Anna Lauf', '李 小龙', '…'])).toEqual([
      'A. L.',
      'B.',
      'É. Z. R.',
      'A. L. 2',
      '李. 小.',
      '?',
    ]);
  });

  it('are different for all, whoever they are, and never a name of two letters or more', () => {
    const name = fc.string({ maxLength: 20, unit: fc.constantFrom(...'abcÄß -–1') });
    fc.assert(
      fc.property(fc.array(name, { maxLength: 20 }), (names) => {
        const all = of(names);
        expect(new Set(all).size).toBe(names.length);
        for (const short of all) expect(short).not.toMatch(/[\p{L}]{2}/u);
      }),
    );
  });
});

describe('several files in one', () => {
  it('can be unpacked with their names and what is in them, in their order', async () => {
    const files: MadeFile[] = [
      { name: 'Ada/01.png', bytes: Uint8Array.from({ length: 5000 }, (_, i) => i * 7) },
      { name: 'Große Wörter.txt', bytes: new TextEncoder().encode('a'.repeat(100_000)) },
      { name: 'empty.svg', bytes: new Uint8Array() },
    ];
    // eslint-disable-next-line @typescript-eslint/require-await -- files come one after the other
    async function* all() {
      yield* files;
    }
    const pieces: Uint8Array[] = [];
    await zipFiles(all(), (piece) => pieces.push(piece));
    const zip = new Uint8Array(Buffer.concat(pieces));
    const unpacked = unzipSync(zip);
    expect(Object.keys(unpacked)).toEqual(files.map(({ name }) => name));
    for (const { name, bytes } of files)
      expect(Buffer.from(unpacked[name]!).equals(Buffer.from(bytes))).toBe(true);
    expect(zip.length).toBeLessThan(10_000);
  });

  it('are named so that they lie in the order of the pages', () => {
    const names = Array.from({ length: 120 }, (_, i) => pageName(i, 120, 'png'));
    expect([...names].sort()).toEqual(names);
    expect(pageName(0, 3, 'svg')).toBe('01.svg');
  });
});

interface Item {
  id: string;
  created: string;
  target: { selector: unknown };
  creator: { name: string };
  body: unknown;
}

describe('annotations of web pages', () => {
  // W3C Web Annotation Data Model, 23 February 2017, §3 and §4.2; examples 1, 20 and 33 as they are remembered.
  it('have what the data model asks for, words by what they say and all else by a shape', () => {
    const web = aPage({ surface: { kind: 'web', material: 'm' } });
    const marks: Mark[] = [
      {
        ...common(),
        kind: 'quote',
        exact: 'two words',
        prefix: 'say ',
        suffix: '.',
        start: 4,
        look: 'highlight',
        rects: [0, 0, 9, 9],
        style: { colour: '#f0e442', opacity: 1 },
      },
      aPath({ alt: 'From here to there' }),
      aText({ text: 'Why <here>?', credit: 'Someone else' }),
    ];
    const pages = [
      { page: web, marks },
      { page: aPage(), marks: [aStroke()] },
    ];
    const bytes = webAnnotationsFile(pages, () => 'https://example.org/a', {
      title: 'Notes',
      people: { ada: 'Ada' },
    });
    const collection = JSON.parse(strFromU8(bytes)) as {
      type: string;
      total: number;
      first: { type: string; items: Item[] };
    };
    expect(collection).toMatchObject({
      '@context': 'http://www.w3.org/ns/anno.jsonld',
      type: 'AnnotationCollection',
      total: 3,
      first: { type: 'AnnotationPage' },
    });
    const { items } = collection.first;
    for (const item of items) {
      expect(item).toMatchObject({ type: 'Annotation', '@context': 'http://www.w3.org/ns/anno.jsonld' });
      expect(new URL(item.id).protocol).toBe('urn:');
      expect(item.created).toMatch(/^\d{4}-\d\d-\d\dT\d\d:\d\d:\d\d\.\d{3}Z$/);
      expect(item.target).toMatchObject({ source: 'https://example.org/a' });
    }
    const selectors = items.map(({ target }) => target.selector);
    expect(selectors[0]).toMatchObject([
      { type: 'TextQuoteSelector', exact: 'two words', prefix: 'say ', suffix: '.' },
      { type: 'TextPositionSelector', start: 4, end: 13 },
    ]);
    expect(selectors.slice(1)).toMatchObject([{ type: 'SvgSelector' }, { type: 'SvgSelector' }]);
    expect(items.map(({ creator }) => creator.name)).toEqual(['Ada', 'Ada', 'Someone else']);
    expect(items[2]!.body).toMatchObject({ type: 'TextualBody', value: 'Why <here>?' });
    expect(items[1]!.body).toMatchObject({ value: 'From here to there' });
  });
});
