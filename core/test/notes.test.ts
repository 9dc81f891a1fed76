import fc from 'fast-check';
import { collab, getVersion, receiveTransaction, sendableSteps } from 'prosemirror-collab';
import { EditorState } from 'prosemirror-state';
import { Step } from 'prosemirror-transform';
import { describe, expect, it } from 'vitest';
import { textHeight } from '../src/index.js';
import type { Paragraph, WordPage } from '../src/notes/index.js';
import {
  MOST_NOTES,
  NotesError,
  notesSchema,
  paragraphsOf,
  plain,
  SharedNotes,
  wordPages,
} from '../src/notes/index.js';

/** Somebody who writes, with a line to the server that may be slow; by the general library for it, prosemirror-collab. */
class Writer {
  state: EditorState;

  constructor(
    readonly name: string,
    readonly server: SharedNotes,
  ) {
    const { doc, version } = server.kept();
    this.state = EditorState.create({
      doc: notesSchema.nodeFromJSON(doc),
      plugins: [collab({ version, clientID: name })],
    });
  }

  write(at: number, letters: string): void {
    const { tr, doc } = this.state;
    const place = 1 + (at % Math.max(1, doc.content.size - 1));
    const { $from } = { $from: doc.resolve(place) };
    if ($from.parent.isTextblock) this.state = this.state.apply(tr.insertText(letters, place));
  }

  take(): void {
    const missed = this.server.since(getVersion(this.state))!;
    const steps = missed.map(({ step }) => Step.fromJSON(notesSchema, step));
    this.state = this.state.apply(
      receiveTransaction(
        this.state,
        steps,
        missed.map(({ client }) => client),
      ),
    );
  }

  send(): boolean {
    const unsent = sendableSteps(this.state);
    if (!unsent) return true;
    const steps = unsent.steps.map((step) => JSON.parse(JSON.stringify(step.toJSON())) as object);
    return this.server.take(unsent.version, steps, this.name);
  }
}

const textOf = ({ doc }: ReturnType<SharedNotes['kept']>) => notesSchema.nodeFromJSON(doc).textContent;
const insertion = (from: number, text: string) => ({
  stepType: 'replace',
  from,
  to: from,
  slice: { content: [{ type: 'text', text }] },
});

describe('notes that several write', () => {
  it('are the same for all once everything has arrived, and no letter is lost or doubled', () => {
    const step = fc.record({
      who: fc.integer({ min: 0, max: 2 }),
      does: fc.constantFrom('write', 'write', 'take', 'send'),
      at: fc.nat(500),
    });
    fc.assert(
      fc.property(fc.array(step, { maxLength: 80 }), (steps) => {
        const server = SharedNotes.empty();
        const writers = ['a', 'b', 'c'].map((name) => new Writer(name, server));
        let written = 0;
        for (const { who, does, at } of steps) {
          const writer = writers[who]!;
          if (does === 'write') {
            const before = writer.state.doc.textContent.length;
            writer.write(at, `${writer.name}.`);
            written += writer.state.doc.textContent.length - before;
          } else if (does === 'take') writer.take();
          else writer.send();
        }
        for (let round = 0; round < 4; round += 1)
          for (const writer of writers) {
            writer.take();
            writer.send();
          }
        for (const writer of writers) {
          writer.take();
          expect(writer.state.doc.toJSON()).toEqual(server.kept().doc);
          expect(sendableSteps(writer.state)).toBeNull();
        }
        expect(textOf(server.kept())).toHaveLength(written);
      }),
      { numRuns: 120 },
    );
  });

  it('take steps only onto the version on which they were made, and tell what was missed', () => {
    const notes = SharedNotes.empty();
    expect(notes.isEmpty).toBe(true);
    expect(notes.take(0, [insertion(1, 'Beam')], 'a')).toBe(true);
    expect(notes.take(0, [insertion(1, 'Arch')], 'b')).toBe(false);
    expect(notes.since(0)).toEqual([{ step: insertion(1, 'Beam'), client: 'a' }]);
    expect(notes.since(1)).toEqual([]);
    expect(notes.since(2)).toBeUndefined();
    expect(textOf(notes.kept())).toBe('Beam');
    expect(notes.isEmpty).toBe(false);
  });

  it('are what they were after they were kept and read again', () => {
    const notes = SharedNotes.empty();
    notes.take(0, [insertion(1, 'Beam')], 'a');
    const again = SharedNotes.of(JSON.parse(JSON.stringify(notes.kept())) as never);
    expect(again.kept()).toEqual(notes.kept());
    expect(again.take(1, [insertion(5, ' and arch')], 'b')).toBe(true);
    expect(textOf(again.kept())).toBe('Beam and arch');
  });

  it('refuse what is no step, leads to no notes, or to too many', () => {
    const notes = SharedNotes.empty();
    const deep = (levels: number): object =>
      levels === 0
        ? { type: 'paragraph' }
        : {
            type: 'bullet_list',
            content: [{ type: 'list_item', content: [{ type: 'paragraph' }, deep(levels - 1)] }],
          };
    const replace = (content: object[]) => ({ stepType: 'replace', from: 0, to: 2, slice: { content } });
    for (const bad of [
      {},
      { stepType: 'replace' },
      { stepType: 'burn', from: 0, to: 1 },
      insertion(900, 'x'),
      insertion(0, 'letters outside of a paragraph'),
      replace([]),
      replace([{ type: 'script' }]),
      replace([{ type: 'heading', attrs: { level: 9 } }]),
      replace([deep(12)]),
      { stepType: 'addMark', from: 0, to: 1, mark: { type: 'link' } },
      JSON.parse('{"stepType":"replace","__proto__":{"from":0}}') as object,
    ])
      expect(() => notes.take(0, [insertion(1, 'Beam'), bad], 'a'), JSON.stringify(bad)).toThrow(NotesError);
    expect(notes.version).toBe(0);
    expect(notes.isEmpty).toBe(true);
    expect(notes.take(0, [replace([deep(3)])], 'a')).toBe(true);
    const full = SharedNotes.empty();
    expect(() => full.take(0, [insertion(1, 'x'.repeat(MOST_NOTES))], 'a')).toThrow('notes-full');
  });

  it('keep so many steps for those who were away, not more', () => {
    const notes = SharedNotes.empty();
    for (let i = 0; i < 520; i += 1) notes.take(i, [insertion(1, 'x')], 'a');
    expect(notes.since(20)).toHaveLength(500);
    expect(notes.since(19)).toBeUndefined();
  });
});

describe('the paragraphs of notes', () => {
  it('have their lists, looks and letters', () => {
    const strong = [{ type: 'strong' }];
    const doc = {
      type: 'doc',
      content: [
        { type: 'heading', attrs: { level: 1 }, content: [{ type: 'text', text: 'Bridges' }] },
        {
          type: 'paragraph',
          content: [
            { type: 'text', text: 'A ' },
            { type: 'text', text: 'beam', marks: strong },
            { type: 'text', text: ' bends' },
          ],
        },
        {
          type: 'ordered_list',
          content: ['One', 'Two'].map((text) => ({
            type: 'list_item',
            content: [{ type: 'paragraph', content: [{ type: 'text', text }] }],
          })),
        },
        { type: 'heading', attrs: { level: 2 }, content: [{ type: 'text', text: 'More' }] },
      ],
    };
    expect(paragraphsOf(doc)).toEqual([
      { text: 'Bridges', parts: [], look: 'heading', indent: 0, lead: '' },
      {
        text: 'A beam bends',
        parts: [{ from: 2, to: 6, bold: true }],
        look: 'plain',
        indent: 0,
        lead: '',
      },
      { text: 'One', parts: [], look: 'plain', indent: 1, lead: '1.' },
      { text: 'Two', parts: [], look: 'plain', indent: 1, lead: '2.' },
      { text: 'More', parts: [{ from: 0, to: 4, bold: true }], look: 'plain', indent: 0, lead: '' },
    ]);
  });
});

describe('pages of words', () => {
  const many = (count: number, text: string) => Array.from({ length: count }, () => plain(text));
  const textsOf = (pages: WordPage[]) => pages.flatMap(({ marks }) => marks.map(({ text }) => text));
  // ISO 216: A4 is 210 mm by 297 mm; CSS Values: 96 pixels are an inch of 25.4 mm.
  const MM = 96 / 25.4;
  const bottomOf = (mark: WordPage['marks'][number]) => mark.y + textHeight(mark);

  it('hold all paragraphs in their order, within the margins of A4', () => {
    const look = fc.constantFrom('title', 'heading', 'plain', 'small');
    const paragraph = fc.record({
      text: fc.string({ maxLength: 300 }),
      parts: fc.constant([]),
      look,
      indent: fc.integer({ min: 0, max: 4 }),
      lead: fc.constantFrom('', '1.'),
    });
    fc.assert(
      fc.property(fc.array(paragraph as fc.Arbitrary<Paragraph>, { maxLength: 60 }), (paragraphs) => {
        const pages = wordPages(paragraphs);
        const texts = textsOf(pages).filter((text) => text !== '1.');
        expect(texts).toEqual(
          paragraphs.map(({ text }) => text).filter((text) => text !== '' && text !== '1.'),
        );
        for (const { page, marks } of pages) {
          expect(page.width).toBeCloseTo(210 * MM);
          expect(page.height).toBeCloseTo(297 * MM);
          for (const mark of marks) {
            expect(mark.x).toBeGreaterThanOrEqual(20 * MM - 1e-6 - (mark.text === '1.' ? 24 : 0));
            expect(mark.x + mark.width).toBeLessThanOrEqual(190 * MM + 1e-6);
            expect(bottomOf(mark)).toBeLessThanOrEqual(277 * MM + 1e-6);
          }
        }
      }),
      { numRuns: 60 },
    );
  });

  it('part a paragraph that is longer than a page, and lose no letter of it', () => {
    const long = Array.from({ length: 2500 }, (_, i) => `word${i}`).join(' ');
    const pages = wordPages([{ ...plain(long), parts: [{ from: 0, to: long.length, bold: true }] }]);
    expect(pages.length).toBeGreaterThan(2);
    expect(textsOf(pages).join('')).toBe(long);
    for (const mark of pages.flatMap(({ marks }) => [...marks])) {
      expect(bottomOf(mark)).toBeLessThanOrEqual(277 * MM + 1e-6);
      expect(mark.parts).toEqual([{ from: 0, to: mark.text.length, bold: true }]);
    }
  });

  it('are as many as are needed, and none where there is nothing to say', () => {
    expect(wordPages([])).toEqual([]);
    expect(wordPages(many(10, 'A beam bends'))).toHaveLength(1);
    expect(wordPages(many(100, 'A beam bends')).length).toBeGreaterThan(1);
  });
});
