import fc from 'fast-check';
import { Lexer } from 'marked';
import OpmlParser from 'opmlparser';
import { Readable } from 'node:stream';
import { describe, expect, it } from 'vitest';
import { answerRefusal, tapped } from '../src/answers/index.js';
import type { Idea, IdeaLayout, OutlineItem } from '../src/ideaMap/index.js';
import {
  boundsOf,
  BRANCHES,
  IDEA_LAYOUTS,
  IdeaEdit,
  IdeaField,
  ideasOf,
  isFolded,
  layIdeas,
  layoutOf,
  newIdeaMap,
  opensByTap,
  outlineOf,
  OutlineError,
  readIndented,
  readMarkdown,
  readOpml,
  rootedOutline,
  wordsOf,
  writeMarkdown,
  writeOpml,
} from '../src/ideaMap/index.js';
import type { Change, Mark } from '../src/index.js';
import { copiesOf, isFoldedAway, isMark, isStanding } from '../src/index.js';
import { patchMark } from '../src/ops/apply.js';
import { TaughtPage } from './helpers/answeredPage.js';
import { aPath, aShape, aStroke, common } from './helpers/marks.js';

const WATER: OutlineItem = {
  text: 'Water',
  children: [
    { text: 'Ice', children: [{ text: 'Snow', children: [] }] },
    { text: 'Vapour', children: [] },
    {
      text: 'Rivers & seas',
      children: [
        { text: 'Salt', children: [] },
        { text: '"Fresh" <water>', children: [] },
      ],
    },
  ],
};

/** A page of marks on which a map is edited. */
class MapPage {
  readonly marks = new Map<string, Mark>();
  readonly root: string;

  constructor(outline: OutlineItem, layout: IdeaLayout = 'sides') {
    const { root, changes } = newIdeaMap(outline, [640, 360], layout, common);
    this.root = root;
    this.apply(changes);
  }

  apply(changes: readonly Change[]): void {
    for (const change of changes)
      if (change.do === 'add') this.marks.set(change.mark.id, change.mark);
      else if (change.do === 'remove') this.marks.delete(change.mark);
      else if (change.do === 'patch')
        this.marks.set(change.mark, patchMark(this.marks.get(change.mark)!, change.set));
  }

  edit(layout: IdeaLayout | undefined, what: (edit: IdeaEdit) => void): void {
    const edit = new IdeaEdit([...this.marks.values()], this.root, { common, layout });
    what(edit);
    this.apply(edit.done());
  }

  get map(): Idea {
    return new IdeaField([...this.marks.values()]).mapAround(this.root)!;
  }

  /** Ideas that are not folded away. */
  get seen(): Idea[] {
    return ideasOf(this.map).filter(({ mark }) => !isFoldedAway(mark, this.marks));
  }

  named(words: string): Idea {
    return ideasOf(this.map).find((idea) => wordsOf(idea) === words)!;
  }
}

const overlaps = (ideas: readonly Idea[]) =>
  ideas.flatMap((one, i) =>
    ideas.slice(0, i).filter((other) => {
      const [a, b] = [boundsOf(one.mark), boundsOf(other.mark)];
      return (
        a.x < b.x + b.width - 0.1 &&
        b.x < a.x + a.width - 0.1 &&
        a.y < b.y + b.height - 0.1 &&
        b.y < a.y + a.height - 0.1
      );
    }),
  );

/** Trees of words. */
const outlines = fc.letrec<{ item: OutlineItem; items: OutlineItem[] }>((tie) => ({
  item: fc.record({
    text: fc.string({ minLength: 1, maxLength: 40 }).map((text) => text.replace(/\s+/g, ' ').trim() || 'x'),
    children: tie('items'),
  }),
  items: fc.oneof({ maxDepth: 3 }, fc.constant<OutlineItem[]>([]), fc.array(tie('item'), { maxLength: 4 })),
})).item;

describe('an idea map', () => {
  it('is ordinary marks, and is read from them again', () => {
    fc.assert(
      fc.property(outlines, fc.constantFrom(...IDEA_LAYOUTS), (outline, layout) => {
        const page = new MapPage(outline, layout);
        for (const mark of page.marks.values()) expect(isMark(mark), JSON.stringify(mark)).toBe(true);
        expect(outlineOf(page.map)).toEqual(outline);
      }),
      { numRuns: 60 },
    );
  });

  it.each(IDEA_LAYOUTS)(
    'laid out %s: no idea lies over another, and it is known how it is laid out',
    (layout) => {
      fc.assert(
        fc.property(outlines, (outline) => {
          const { map } = new MapPage(outline, layout);
          expect(overlaps(ideasOf(map))).toEqual([]);
          expect(layoutOf(map)).toBeDefined();
        }),
        { numRuns: 60 },
      );
    },
  );

  it('keeps its words, one middle and a line to each idea, whatever is done to it in whatever order', () => {
    const step = fc.record({
      what: fc.constantFrom('add', 'remove', 'move', 'fold', 'unfold', 'text', 'colour'),
      one: fc.nat(),
      other: fc.nat(),
      layout: fc.constantFrom(...IDEA_LAYOUTS, undefined),
    });
    fc.assert(
      fc.property(fc.array(step, { maxLength: 12 }), (steps) => {
        const page = new MapPage(WATER);
        for (const { what, one, other, layout } of steps) {
          const before = ideasOf(page.map);
          const ids = before.map(({ mark }) => mark.id);
          const [id, there] = [ids[one % ids.length]!, ids[other % ids.length]!];
          const own = ideasOf(before[one % ids.length]!).length;
          page.edit(layout, (edit) => {
            if (what === 'add') edit.add(id, other, { text: `new ${one}`, children: [] });
            if (what === 'remove' && id !== page.root) edit.remove(id);
            if (what === 'move') edit.move(id, there, other);
            if (what === 'fold' || what === 'unfold') edit.fold(id, what === 'fold');
            if (what === 'text') edit.setText(id, `words ${other}`);
            if (what === 'colour') edit.colour(id, BRANCHES[other % BRANCHES.length]!);
          });
          const after = ideasOf(page.map);
          const more = what === 'add' ? 1 : what === 'remove' && id !== page.root ? -own : 0;
          expect(after.length).toBe(before.length + more);
          expect(page.map.mark.id).toBe(page.root);
          expect(page.marks.size).toBe(2 * after.length - 1);
          for (const mark of page.marks.values()) expect(isMark(mark)).toBe(true);
          if (layout) expect(overlaps(page.seen)).toEqual([]);
        }
      }),
      { numRuns: 80 },
    );
  });

  it('moves a branch with all that hangs on it, and never onto itself', () => {
    const page = new MapPage(WATER);
    const [rivers, ice] = [page.named('Rivers & seas').mark.id, page.named('Ice').mark.id];
    page.edit('sides', (edit) => edit.move(rivers, ice, 0));
    expect(outlineOf(page.named('Ice')).children.map(({ text }) => text)).toEqual(['Rivers & seas', 'Snow']);
    page.edit('sides', (edit) => edit.move(ice, rivers, 0));
    expect(outlineOf(page.named('Ice')).children.map(({ text }) => text)).toEqual(['Rivers & seas', 'Snow']);
  });

  it('gives what hangs elsewhere the look of that place', () => {
    const page = new MapPage(WATER);
    const looks = (words: string) => {
      const { mark } = page.named(words);
      return mark.kind === 'text' ? [mark.style.size, mark.style.background] : [];
    };
    const [ice, vapour] = [looks('Ice'), looks('Vapour')];
    expect(ice[1]).not.toBe(vapour[1]);
    page.edit('sides', (edit) => edit.move(page.named('Vapour').mark.id, page.named('Ice').mark.id, 0));
    expect(looks('Vapour')).toEqual([18, ice[1]]);
    page.edit('sides', (edit) => edit.move(page.named('Vapour').mark.id, page.root, 0));
    expect(looks('Vapour')).toEqual(ice);
  });

  it('folds all that hangs on an idea away, closes up, and opens as it was', () => {
    const page = new MapPage(WATER);
    const there = new Map([...page.marks].map(([id, mark]) => [id, mark]));
    const id = page.named('Rivers & seas').mark.id;
    page.edit('sides', (edit) => edit.fold(id, true));
    expect(isFolded(page.named('Rivers & seas'))).toBe(true);
    expect([...page.marks.values()].filter((mark) => isFoldedAway(mark, page.marks))).toHaveLength(4);
    page.edit('sides', (edit) => edit.fold(id, false));
    expect(isFolded(page.named('Rivers & seas'))).toBe(false);
    for (const { mark } of ideasOf(page.map))
      expect(boundsOf(mark)).toEqual(boundsOf(there.get(mark.id) as typeof mark));
  });

  it('keeps folded what was folded in what is folded and opened again', () => {
    const page = new MapPage(WATER);
    const id = (words: string) => page.named(words).mark.id;
    page.edit('sides', (edit) => edit.move(id('Ice'), id('Rivers & seas'), 0));
    const fold = (words: string, isAway: boolean) =>
      page.edit('sides', (edit) => edit.fold(id(words), isAway));
    const seen = () => page.seen.map(wordsOf).sort();
    fold('Ice', true);
    expect(seen()).toEqual(['"Fresh" <water>', 'Ice', 'Rivers & seas', 'Salt', 'Vapour', 'Water']);
    fold('Water', true);
    expect(seen()).toEqual(['Water']);
    fold('Water', false);
    expect(seen()).toEqual(['"Fresh" <water>', 'Ice', 'Rivers & seas', 'Salt', 'Vapour', 'Water']);
    // Whatever an idea is folded under is opened for what is hung on it.
    fold('Rivers & seas', true);
    page.edit('sides', (edit) => edit.add(id('Ice'), 0, { text: 'Hail', children: [] }));
    expect(seen()).toContain('Snow');
  });

  it('is seen again where what it was folded under was taken away otherwise', () => {
    const page = new MapPage(WATER);
    const rivers = page.named('Rivers & seas').mark.id;
    page.edit('sides', (edit) => edit.fold(rivers, true));
    page.apply([{ do: 'remove', mark: rivers }]);
    const seen = [...page.marks.values()].filter((mark) => isStanding(mark, 'class', page.marks));
    expect(seen.flatMap((mark) => ('text' in mark ? mark.text : []))).toContain('Salt');
  });

  it('is opened by a class step by step, a tap on an idea showing what hangs on it', () => {
    const page = new MapPage(WATER);
    page.edit('sides', (edit) => edit.openByTaps(page.root, true));
    expect(ideasOf(page.map).map(opensByTap)).toEqual([true, true, false, false, true, false, false]);
    const taught = new TaughtPage([...page.marks.values()]);
    const seen = () => taught.standing('class').flatMap((mark) => ('text' in mark ? mark.text : []));
    expect(seen()).toEqual(['Water']);
    const tap = (words: string) =>
      taught.put('wren', tapped(taught.as('wren'), page.named(words).mark).marks);
    expect(tap('Water')).toBeUndefined();
    expect(seen().sort()).toEqual(['Ice', 'Rivers & seas', 'Vapour', 'Water']);
    expect(tap('Rivers & seas')).toBeUndefined();
    expect(seen()).toContain('Salt');
    expect(seen()).not.toContain('Snow');

    // What is new there is opened as well, what is hung elsewhere no longer.
    page.edit('sides', (edit) => edit.openByTaps(page.named('Vapour').mark.id, true));
    page.edit('sides', (edit) => edit.add(page.named('Ice').mark.id, 1, { text: 'Hail', children: [] }));
    expect(page.named('Hail').mark.hidden).toBe(true);
    page.edit('sides', (edit) => edit.openByTaps(page.named('Ice').mark.id, false));
    expect(opensByTap(page.named('Ice'))).toBe(false);
    page.edit('sides', (edit) => edit.move(page.named('Salt').mark.id, page.named('Ice').mark.id, 0));
    expect(page.named('Salt').mark.hidden).toBe(false);

    page.edit('sides', (edit) => edit.openByTaps(page.root, false));
    expect([...page.marks.values()].filter(({ rule, hidden }) => rule ?? hidden)).toEqual([]);
  });

  it('shows at once what a student hangs on what is opened by taps, which is no rule of theirs', () => {
    const page = new MapPage(WATER);
    page.edit('sides', (edit) => edit.openByTaps(page.root, true));
    const known = new Map(page.marks);
    const mayRule = false;
    const edit = new IdeaEdit(
      [...known.values()],
      page.root,
      { common, layout: undefined, mayRule },
      () => false,
    );
    edit.add(page.root, 0, { text: 'Hail', children: [] });
    const changes = edit.done();
    const wren = { id: 'wren', role: 'student', tables: [] } as const;
    expect(answerRefusal({ id: 'o', changes }, wren, (id) => known.get(id))).toBeUndefined();
    page.apply(changes);
    expect(page.named('Hail').mark.hidden).toBeUndefined();
  });

  it('is folded in copies as it was', () => {
    const page = new MapPage(WATER);
    page.edit('sides', (edit) => edit.fold(page.named('Rivers & seas').mark.id, true));
    let count = 0;
    const copies = new Map(
      copiesOf([...page.marks.values()], () => `copy${++count}`).map((mark) => [mark.id, mark]),
    );
    const away = [...copies.values()].filter((mark) => isFoldedAway(mark, copies));
    expect(away).toHaveLength(4);
    // Without the idea under which it was folded, a copy is seen.
    const [alone] = copiesOf([page.named('Salt').mark], () => 'alone');
    expect(alone!.folded).toBeNull();
  });

  it('leaves what was put by hand where it is, and says that it was', () => {
    const page = new MapPage(WATER);
    const { mark } = page.named('Snow');
    page.apply([{ do: 'patch', mark: mark.id, set: { x: 20, y: 30 } }]);
    expect(layoutOf(page.map)).toBeUndefined();
    page.edit(undefined, (edit) => edit.add(page.named('Ice').mark.id, 1, { text: 'Hail', children: [] }));
    expect(boundsOf(page.named('Snow').mark)).toMatchObject({ x: 20, y: 30 });
  });

  it('leaves marks of others alone', () => {
    const page = new MapPage(WATER);
    const before = JSON.stringify(page.named('Ice').mark);
    const edit = new IdeaEdit(
      [...page.marks.values()],
      page.root,
      { common, layout: undefined },
      () => false,
    );
    edit.setText(page.named('Ice').mark.id, 'Mine');
    edit.add(page.root, 0, { text: 'New', children: [] });
    page.apply(edit.done());
    expect(JSON.stringify(page.named('Ice').mark)).toBe(before);
    expect(page.named('New')).toBeDefined();
  });

  it('is left as it is where somebody else took away what is changed', () => {
    const page = new MapPage(WATER);
    const before = JSON.stringify([...page.marks]);
    page.edit('sides', (edit) => {
      expect(edit.add('gone', 0, { text: 'x', children: [] })).toBeUndefined();
      edit.setText('gone', 'x');
      edit.move('gone', page.root, 0);
      edit.move(page.named('Ice').mark.id, 'gone', 0);
      edit.remove('gone');
      edit.fold('gone', true);
      edit.colour('gone', BRANCHES[0]);
    });
    expect(JSON.stringify([...page.marks])).toBe(before);
    expect(new IdeaEdit([], 'gone', { common, layout: 'sides' }).done()).toEqual([]);
  });

  it('lays out what is new though only what was there before may be asked about', () => {
    const page = new MapPage({ text: 'Water', children: [] });
    const known = new Set(page.marks.keys());
    const edit = new IdeaEdit([...page.marks.values()], page.root, { common, layout: 'sides' }, ({ id }) =>
      known.has(id),
    );
    edit.add(page.root, 0, { text: 'Ice', children: [] });
    page.apply(edit.done());
    expect(layoutOf(page.map)).toBe('sides');
  });
});

describe('what is drawn by hand', () => {
  const box = { width: 120, height: 60, rotation: 0, flip: false };

  it('is a map as soon as a line leads from a bubble to another, with the ink in it', () => {
    const middle = aShape({ id: 'middle', form: 'ellipse', x: 300, y: 300, ...box, createdAt: 1 });
    const bubble = aShape({ id: 'bubble', form: 'ellipse', x: 600, y: 200, ...box, createdAt: 2 });
    const apart = aShape({ id: 'apart', form: 'ellipse', x: 20, y: 20, ...box, createdAt: 3 });
    const ink = aStroke({ points: [640, 220, 0.5, 0, 680, 235, 0.5, 10] });
    const line = aPath({
      course: 'straight',
      closed: false,
      points: [424, 325, 596, 240],
      from: null,
      to: null,
    });
    const map = new IdeaField([middle, bubble, apart, ink, line]).mapAround('bubble')!;
    expect(ideasOf(map).map(({ mark }) => mark.id)).toEqual(['middle', 'bubble']);
    expect(map.children[0]!.within.map(({ id }) => id)).toEqual([ink.id]);
    // Laid out, the ink comes along, and the line sticks.
    const edit = new IdeaEdit([middle, bubble, apart, ink, line], 'middle', { common, layout: 'down' });
    const changes = edit.done();
    const moved = changes.filter((change) => change.do === 'patch').map((change) => change.mark);
    expect(new Set(moved)).toEqual(new Set(['bubble', ink.id, line.id]));
  });

  it('is none round a mark without a box', () => {
    const ink = aStroke();
    expect(new IdeaField([ink]).mapAround(ink.id)).toBeUndefined();
  });
});

/** What another program reads in OPML: it tells each idea after those that hang on it, by numbers. */
const readByOther = (xml: string) =>
  new Promise<{ version: string; items: OutlineItem[] }>((resolve, reject) => {
    const parser = new OpmlParser({});
    const found = new Map<number, OutlineItem & { parent: number }>();
    parser.on('error', reject);
    parser.on('readable', () => {
      for (let node = parser.read(); node; node = parser.read())
        found.set(node['#id'], { text: node.text, children: [], parent: node['#parentid'] });
    });
    parser.on('end', () => {
      const items: OutlineItem[] = [];
      for (const [, { parent, ...item }] of [...found].sort(([a], [b]) => a - b))
        (found.get(parent)?.children ?? items).push(item);
      resolve({ version: parser.meta['#version'] ?? '', items });
    });
    Readable.from([xml]).pipe(parser);
  });

/** What another program reads in a list of Markdown. */
const wordsByOther = (markdown: string): OutlineItem[] => {
  type Token = { type: string; text?: string; items?: Token[]; tokens?: Token[] };
  const plain = (tokens: readonly Token[] = []): string =>
    tokens.map((token) => (token.tokens ? plain(token.tokens) : (token.text ?? ''))).join('');
  const itemsIn = (tokens: readonly Token[] = []): OutlineItem[] =>
    tokens
      .filter(({ type }) => type === 'list')
      .flatMap(({ items = [] }) =>
        items.map((item) => ({
          text: unescaped(plain(item.tokens?.filter(({ type }) => type !== 'list'))),
          children: itemsIn(item.tokens),
        })),
      );
  return itemsIn(new Lexer().lex(markdown));
};
const unescaped = (text: string) =>
  text
    .replace(/&lt;/g, '<')
    .replace(/&gt;/g, '>')
    .replace(/&quot;/g, '"')
    .replace(/&#39;/g, "'")
    .replace(/&amp;/g, '&');

describe('an outline', () => {
  it('goes out as OPML 2.0 that another program reads (opml.org/spec2.opml)', async () => {
    const xml = writeOpml(WATER);
    expect(xml).toMatch(/^<\?xml version="1.0" encoding="UTF-8"\?>\s*<opml version="2.0">/);
    expect(await readByOther(xml)).toEqual({ version: '2.0', items: [WATER] });
  });

  it('comes back from OPML and Markdown without loss', () => {
    fc.assert(
      fc.property(outlines, (outline) => {
        const { items } = readOpml(writeOpml(outline));
        expect(items).toEqual([outline]);
        expect(readMarkdown(writeMarkdown(outline))).toEqual([outline]);
      }),
    );
  });

  it('goes out as lists of CommonMark that another program reads', () => {
    expect(wordsByOther(writeMarkdown(WATER))).toEqual(WATER.children);
  });

  it('is read from the worked example of the specification of OPML', () => {
    // After "states.opml" of spec2.opml, shortened; attributes that say more are left out.
    const xml = `<?xml version="1.0" encoding="ISO-8859-1"?>
      <opml version="2.0"><head><title>states.opml</title><expansionState>1,6</expansionState></head>
      <body><outline text="United States"><outline text="Far West"><outline text="Alaska"/><outline text="California" created="Tue, 12 Jul 2005 23:56:35 GMT"/></outline>
      <outline text="Great Plains"/></outline></body></opml>`;
    expect(readOpml(xml)).toEqual({
      title: 'states.opml',
      items: [
        {
          text: 'United States',
          children: [
            {
              text: 'Far West',
              children: [
                { text: 'Alaska', children: [] },
                { text: 'California', children: [] },
              ],
            },
            { text: 'Great Plains', children: [] },
          ],
        },
      ],
    });
  });

  it('is read from Markdown that others write: headings, numbers, words that are bold or a link', () => {
    const markdown =
      '# Water\n\n## Ice\n\n1. **Snow** and [hail](http://a.example)\n   - soft\n2. `code`\n\n## Vapour\n';
    expect(readMarkdown(markdown)).toEqual([
      {
        text: 'Water',
        children: [
          {
            text: 'Ice',
            children: [
              { text: 'Snow and hail', children: [{ text: 'soft', children: [] }] },
              { text: 'code', children: [] },
            ],
          },
          { text: 'Vapour', children: [] },
        ],
      },
    ]);
  });

  it('is read from lines that are moved in by blanks or tabs, with signs of lists or without', () => {
    const lines = 'Water\n\tIce\n\t\t- Snow\n\n    Vapour\n';
    expect(readIndented(lines)).toEqual([
      {
        text: 'Water',
        children: [
          { text: 'Ice', children: [{ text: 'Snow', children: [] }] },
          { text: 'Vapour', children: [] },
        ],
      },
    ]);
  });

  it.each([
    ['nothing', () => readIndented('  \n'), 'empty'],
    ['another file', () => readOpml('<html><body/></html>'), 'not-opml'],
    ['broken XML', () => readOpml('<opml><body><outline text="a"'), 'not-opml'],
    ['too much', () => readIndented('a\n'.repeat(1001)), 'too-many'],
  ])('of %s is refused with its reason', (_name, read, fault) => {
    expect(read).toThrow(expect.objectContaining({ fault }) as OutlineError);
  });

  it('gets a middle where it has several ideas at its top', () => {
    const items = readIndented('a\nb');
    expect(rootedOutline(items, 'All')).toEqual({ text: 'All', children: items });
    expect(rootedOutline(items.slice(0, 1), 'All')).toBe(items[0]);
  });
});

describe('a layout', () => {
  it('puts what weighs the same at both sides, and keeps what has a side', () => {
    const box = (id: string, isLeft?: boolean) => ({
      ...{ id, width: 80, height: 30, children: [] },
      ...(isLeft !== undefined && { isLeft }),
    });
    const sideOf = (children: ReturnType<typeof box>[]) => {
      const places = layIdeas({ id: 'root', width: 100, height: 40, children }, 'sides');
      return children.map(({ id }) => Math.sign(places.get(id)![0]));
    };
    expect(sideOf([box('a'), box('b'), box('c'), box('d')])).toEqual([1, 1, -1, -1]);
    expect(sideOf([box('a', true), box('b', true), box('c'), box('d')])).toEqual([-1, -1, 1, 1]);
  });
});
