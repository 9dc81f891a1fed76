import type { AnswerRule } from '../src/index.js';
import { Ajv2020 } from 'ajv/dist/2020.js';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { ArchiveHead } from '../src/archive/index.js';
import {
  ARCHIVE,
  checkHead,
  checkPage,
  HEAD_SCHEMA,
  PAGE_SCHEMA,
  renamed,
  UnreadableArchive,
} from '../src/archive/index.js';
import { isMark } from '../src/index.js';
import { anyMark, KINDS } from './helpers/anyMark.js';
import { aPage, aStroke } from './helpers/marks.js';

const ajv = new Ajv2020({ strict: true, allowUnionTypes: true });
const isPageBySchema = ajv.compile(PAGE_SCHEMA);
const isHeadBySchema = ajv.compile(HEAD_SCHEMA);

const head: ArchiveHead = {
  ...ARCHIVE,
  madeAt: 1_700_000_000_000,
  title: 'Bridges',
  tags: ['8', 'technology'],
  teacher: { id: 'teacher', name: 'Ada Fenn' },
  pages: ['pages/001.json'],
  classes: [
    {
      id: 'class-1',
      title: '8 Heron',
      openedAt: 1,
      endedAt: 2,
      page: 'page-1',
      rules: null,
      ways: { 'page-1': 'own' } as never,
      tables: [{ id: '1', students: ['wren'] }],
      ideas: { 'page-1': { adding: true, grouping: false, votes: 2, counted: true, sorted: false } },
      students: [{ id: 'wren', name: 'Wren', colour: '#0072b2', seat: 0, joinedAt: 1 }],
      chat: [{ author: 'wren', name: 'Wren', words: 'Why?', at: 2 }],
      notes: { type: 'doc' },
      polls: [
        {
          poll: {
            id: 'p',
            kind: 'yes-no',
            question: '',
            options: ['yes', 'no'],
            anonymous: false,
            hidden: false,
          },
          askedAt: 1,
          closedAt: null,
          answers: [{ student: 'wren', value: 0, at: 2 }],
        },
      ],
      votes: [{ mark: 'm', page: 'page-1', student: 'wren' }],
      pages: ['classes/1/001.json'],
    },
  ],
  files: [
    {
      id: 'f',
      kind: 'pdf',
      path: 'files/f.pdf',
      sha256: 'a'.repeat(64),
      name: 'Größe.pdf',
      type: 'application/pdf',
      pageCount: 3,
      notes: ['Ask', ''],
      class: null,
      author: null,
      createdAt: 5,
    },
  ],
};

const RULE: AnswerRule = {
  tap: { steps: [{ do: 'speak', text: 'Well done', language: 'en' }], once: false },
  moves: { movement: { how: 'turning', x: 1, y: 2 }, copies: true },
  takes: { things: ['a'], sendsBack: true, snaps: true },
  fill: { as: 'words', answers: ['sun'], typos: true },
};
const STANDS = { for: 'a', at: 'b', tries: 1, taps: 0 };

describe('a lesson archive', () => {
  // The schema is judged and applied by ajv, JSON Schema draft 2020-12.
  it('has pages that its schema describes, whatever is on them, and that come back as they were', () => {
    const any = fc.array(fc.oneof(...KINDS.map((kind) => anyMark(kind))), { maxLength: 4 });
    fc.assert(
      fc.property(any, fc.boolean(), (marks, isElsewhere) => {
        const made = marks.map((mark) => ({
          ...mark,
          ...(isElsewhere && { credit: 'Ben', pane: 1, hidden: true, rule: RULE, standIn: STANDS }),
        }));
        fc.pre(made.every(isMark));
        const page = { page: aPage(), marks: made };
        const text = JSON.stringify(page);
        expect(isPageBySchema(JSON.parse(text)), ajv.errorsText(isPageBySchema.errors)).toBe(true);
        expect(JSON.stringify(checkPage(JSON.parse(text)))).toBe(text);
      }),
    );
  });

  it('says what is in it as its schema describes, and comes back as it was', () => {
    const own: unknown = JSON.parse(JSON.stringify(head));
    expect(isHeadBySchema(own), ajv.errorsText(isHeadBySchema.errors)).toBe(true);
    expect(checkHead(own)).toEqual(head);
  });

  it('is refused by both where a field is missing, unknown or wrong', () => {
    const wrong: unknown[] = [
      { ...head, title: 7 },
      { ...head, extra: 1 },
      { ...head, classes: [{ ...head.classes[0], students: [{ id: 'x' }] }] },
      { ...head, files: [{ ...head.files[0], path: '../../etc/passwd' }] },
      { ...head, files: [{ ...head.files[0], path: '/etc/passwd.txt' }] },
      { ...head, pages: ['pages/..'] },
    ];
    for (const each of wrong) {
      expect(isHeadBySchema(each)).toBe(false);
      expect(() => checkHead(each)).toThrow(UnreadableArchive);
    }
    const pages: unknown[] = [
      {},
      { page: aPage(), marks: [{}] },
      { page: aPage(), marks: [{ ...aStroke(), style: {} }] },
    ];
    for (const each of pages) {
      expect(isPageBySchema(each)).toBe(false);
      expect(() => checkPage(each)).toThrow(UnreadableArchive);
    }
    expect(() => checkPage({ page: aPage(), marks: [aStroke({ page: 'elsewhere' })] })).toThrow(
      UnreadableArchive,
    );
  });

  it('says why it cannot be read', () => {
    const faultOf = (value: unknown) => {
      try {
        checkHead(value);
        return undefined;
      } catch (error) {
        return (error as UnreadableArchive).fault;
      }
    };
    expect([null, [], {}, { format: 'other', version: 1 }].map(faultOf)).toEqual([
      'none',
      'none',
      'none',
      'none',
    ]);
    expect(faultOf({ ...head, version: 2 })).toBe('newer');
    expect(faultOf({ ...head, version: 0 })).toBe('broken');
    expect(faultOf({ ...head, version: 'x' })).toBe('broken');
  });

  it('of an earlier version is brought to that of today, step by step', () => {
    const { tags, ...before } = head;
    const migrations = {
      [-1]: (old: Record<string, unknown>) => ({ ...old, words: tags.join(' ') }),
      0: ({ words, ...old }: Record<string, unknown>) => ({ ...old, tags: String(words).split(' ') }),
    };
    expect(checkHead({ ...before, version: -1 }, migrations)).toEqual(head);
  });
});

describe('ids by other names', () => {
  it('are other everywhere, in spaces and keys too, and nothing else is', () => {
    const ids = new Map([
      ['wren', 'w2'],
      ['page-1', 'p2'],
    ]);
    const value = {
      author: 'wren',
      space: 'student:wren',
      ways: { 'page-1': 'own' },
      words: 'wren said',
      points: [1, 2],
      list: [null, true, 'table:1'],
    };
    expect(renamed(value, ids)).toEqual({
      author: 'w2',
      space: 'student:w2',
      ways: { p2: 'own' },
      words: 'wren said',
      points: [1, 2],
      list: [null, true, 'table:1'],
    });
  });

  it('go back to what they were', () => {
    const there = new Map([
      ['a', 'x1'],
      ['b', 'x2'],
    ]);
    const back = new Map([...there].map(([from, to]) => [to, from]));
    const text = fc.constantFrom('a', 'b', 'c', 'student:a', 'table:b', 'a:b', '');
    const tree = fc.letrec((tie) => ({
      node: fc.oneof(
        { maxDepth: 4 },
        text,
        fc.integer(),
        fc.constant(null),
        fc.array(tie('node'), { maxLength: 3 }),
        fc.dictionary(text, tie('node'), { maxKeys: 3 }),
      ),
    })).node;
    fc.assert(
      fc.property(tree, (value) => {
        expect(renamed(renamed(value, there), back)).toEqual(value);
      }),
    );
  });
});
