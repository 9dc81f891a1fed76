import fc from 'fast-check';
import { runInNewContext } from 'node:vm';
import { describe, expect, it } from 'vitest';
import type { Take } from '../src/api/explanations.js';
import type { PackSources } from '../src/explain/index.js';
import { condensed, marksIn, packed, playedParts, playingPage, stretchesOf } from '../src/explain/index.js';
import type { Change, LoggedOperation } from '../src/ops/operation.js';
import type { Recorded, Stretch } from '../src/replay/index.js';
import { Replay } from '../src/replay/index.js';
import { aPage, aStroke } from './helpers/marks.js';

const strokeOf = (id: number, page: string, took: number) =>
  aStroke({ id: `m${id}`, page, points: [0, 0, 0.5, 0, 10, 10, 0.5, took] });

let seq = 0;
function logged(at: number, changes: Change[], undoes?: string): LoggedOperation {
  seq += 1;
  const operation = { id: `op${seq}`, changes, ...(undoes !== undefined && { undoes }) };
  return { seq, author: 'ada', at, operation };
}

const PAGES = ['p1', 'p2', 'p3'] as const;
const anyChange = fc.oneof(
  fc
    .record({ id: fc.nat(6), took: fc.nat(400) })
    .map(({ id, took }): Change => ({ do: 'add', mark: strokeOf(id, PAGES[id % 3]!, took) })),
  fc.nat(6).map((id): Change => ({ do: 'remove', mark: `m${id}` })),
  fc
    .record({ id: fc.nat(6), order: fc.constantFrom('a1', 'a2') })
    .map(({ id, order }): Change => ({ do: 'patch', mark: `m${id}`, set: { order } })),
  fc
    .constantFrom(...PAGES)
    .map((page): Change => ({ do: 'patchPage', page, set: { title: 'A title', width: 500 } })),
  fc.constantFrom(...PAGES).map((id): Change => ({ do: 'addPage', page: aPage({ id }) })),
);
const anyLog = fc
  .array(
    fc.record({
      after: fc.nat(300),
      changes: fc.array(anyChange, { minLength: 1, maxLength: 3 }),
      isUndo: fc.boolean(),
    }),
    { maxLength: 14 },
  )
  .map((steps) => {
    let at = 1000;
    const there = new Set<string>();
    return steps.map(({ after, changes, isUndo }) => {
      at += after;
      return logged(at, allowed(changes, there), isUndo ? 'another' : undefined);
    });
  });

/** Without what no log has: marks that are there are not added again, others not changed (`refusalOf`). Keeps what is `there`. */
function allowed(changes: Change[], there: Set<string>): Change[] {
  return changes.filter((change) => {
    if (change.do === 'patch') return there.has(change.mark);
    if (change.do === 'remove') return there.delete(change.mark);
    if (change.do !== 'add') return true;
    if (there.has(change.mark.id)) return false;
    there.add(change.mark.id);
    return true;
  });
}
/** Stretches of real time, in any order, none of which is empty. */
const anyStretches = fc
  .array(fc.record({ from: fc.integer({ min: 900, max: 4000 }), length: fc.integer({ min: 1, max: 700 }) }), {
    minLength: 1,
    maxLength: 4,
  })
  .map((all): Stretch[] => all.map(({ from, length }) => ({ from, to: from + length })));

const playing = (recorded: Recorded, parts: Stretch[], page: string) =>
  new Replay(recorded, { page, counts: isShown, leads: () => true, longestPause: Infinity, parts });
const isShown = ({ id }: { id: string }) => id !== 'm4';

describe('a log with nothing in it but what is seen', () => {
  it('plays as the whole log does, whatever is cut out and hidden', () => {
    fc.assert(
      fc.property(anyLog, anyStretches, (operations, stretches) => {
        const short = condensed(operations, { stretches, pages: new Set(['p1', 'p2']), counts: isShown });
        for (const page of ['p1', 'p2']) {
          const whole = playing({ operations, turns: [] }, stretches, page);
          const seen = playing({ operations: short, turns: [] }, stretches, page);
          expect(seen.length).toBe(whole.length);
          for (let time = 0; time < whole.length; time += 23) {
            const [one, other] = [seen.at(time)!, whole.at(time)!];
            expect(seen.stateAfter(one)).toEqual(whole.stateAfter(other));
            expect(one.growing).toEqual(other.growing);
          }
        }
      }),
      { numRuns: 400 },
    );
  });

  it('has no trace of what came and went where nobody sees it, of hidden marks and of other pages', () => {
    const operations = [
      logged(1000, [{ do: 'add', mark: strokeOf(1, 'p1', 10) }]),
      logged(2000, [{ do: 'add', mark: strokeOf(2, 'p1', 10) }]),
      logged(2100, [{ do: 'remove', mark: 'm2' }]),
      logged(2200, [{ do: 'patch', mark: 'm1', set: { order: 'a7' } }]),
      logged(3000, [{ do: 'add', mark: strokeOf(4, 'p1', 10) }]),
      logged(3010, [{ do: 'add', mark: strokeOf(3, 'p3', 10) }]),
      logged(3050, [{ do: 'add', mark: strokeOf(5, 'p1', 10) }]),
      logged(9000, [{ do: 'remove', mark: 'm1' }]),
    ];
    const stretches = [{ from: 2500, to: 3500 }];
    const short = condensed(operations, { stretches, pages: new Set(['p1']), counts: isShown });
    expect(short.map(({ seq: number, at }) => [number, at])).toEqual([
      [1, 2200],
      [2, 3050],
    ]);
    expect(JSON.stringify(short)).not.toMatch(/m2|m3|m4/);
    expect(short[0]!.operation.changes[0]).toMatchObject({ do: 'add', mark: { id: 'm1', order: 'a7' } });
  });
});

describe('an explanation packed up', () => {
  const take: Take = {
    id: 'first',
    startedAt: 10_000,
    length: 9000,
    voice: 'audio/webm',
    video: 'video/mp4',
    face: null,
  };
  const sources = (set: Partial<PackSources> = {}): PackSources => ({
    title: 'Loads',
    language: 'en',
    recorded: {
      operations: [
        logged(11_000, [
          { do: 'add', mark: { ...strokeOf(1, 'p1', 10), author: 'wren', space: 'student:wren' } },
        ]),
        logged(15_000, [{ do: 'add', mark: strokeOf(2, 'p2', 10) }]),
      ],
      turns: [
        { at: 10_000, page: 'p1', place: { take: 'first', from: 0 } },
        { at: 12_500, page: 'p3', name: 'Cut out' },
        { at: 14_000, page: 'p2' },
      ],
    },
    hidden: new Set(),
    played: playedParts({
      takes: [take],
      parts: [
        { take: 'first', from: 500, length: 1500 },
        { take: 'first', from: 4500, length: 2000 },
      ],
    }),
    noted: new Map([
      [
        'first',
        [
          { t: 0, do: 'page', page: 'p1' },
          { t: 1000, do: 'op', op: 'op1' },
          { t: 1200, do: 'point', who: 1, colour: '#f00', page: 'p1', x: 1, y: 1 },
          { t: 3000, do: 'point', who: 1, colour: '#f00', page: 'p3', x: 9, y: 9 },
          { t: 3500, do: 'live', live: { page: 'p2', panes: [] } },
          { t: 5000, do: 'rest', who: 1 },
          { t: 5500, do: 'live', live: { page: 'p3', panes: [] } },
          { t: 6000, do: 'live', live: null },
        ],
      ],
    ]),
    stops: [],
    chapters: [{ at: 0, name: 'Page 1' }],
    cues: [],
    pages: ['p1', 'p2'].map((id) => ({ page: aPage({ id }), bounds: [null], prepared: [] })),
    colourOf: (author) => (author === 'wren' ? '#2e7d32' : undefined),
    ...set,
  });

  it('plays from takes that hold nothing but what plays, with the sound that belongs to each', () => {
    const { explanation, takes } = packed(sources());
    expect(explanation.played).toMatchObject([
      { take: { id: 'take 1', startedAt: 10_500, length: 1500 }, from: 0, start: 0 },
      { take: { id: 'take 2', startedAt: 14_500, length: 2000 }, from: 0, start: 1500 },
    ]);
    expect(takes.map(({ take: { id }, part }) => [id, part.voice!.from, part.length])).toEqual([
      ['take 1', 500, 1500],
      ['take 2', 4500, 2000],
    ]);
    const replay = new Replay(explanation.recorded, {
      counts: () => true,
      leads: () => true,
      longestPause: Infinity,
      parts: stretchesOf(explanation.played),
    });
    expect(replay.turns.map(({ page }) => page)).toEqual(['p1', 'p2']);
    expect(replay.stateAfter(replay.at(3400)!).marks.size).toBe(1);
  });

  it('names nobody, and holds nothing of what was cut out', () => {
    const { explanation } = packed(sources());
    expect(JSON.stringify(explanation)).not.toMatch(/wren|ada|p3|Cut out/);
    expect(explanation.colours).toEqual({ 'writer 1': '#2e7d32' });
    expect(explanation.noted['take 1']!.map((one) => one.do)).toEqual([
      'focus',
      'uncovered',
      'playing',
      'live',
      'point',
    ]);
    // What moved on a page that is not shown is not told either.
    const live = { page: 'p2', panes: [] };
    expect(explanation.noted['take 2']!.filter((one) => one.do === 'live')).toEqual([
      { t: 0, do: 'live', live },
      { t: 1500, do: 'live', live: null },
    ]);
  });

  it('tells every form of every mark, so that letters and pictures for it can be brought', () => {
    const moved = logged(11_500, [{ do: 'patch', mark: 'm1', set: { order: 'a9' } }]);
    const [first, second] = sources().recorded.operations;
    const recorded = { ...sources().recorded, operations: [first!, moved, second!] };
    const prepared = [strokeOf(4, 'p2', 0)];
    const pages = [
      { page: aPage({ id: 'p1' }), bounds: [], prepared: [] },
      { page: aPage({ id: 'p2' }), bounds: [], prepared },
    ];
    const found = marksIn(packed(sources({ recorded, pages })).explanation);
    expect(found.get('p1')!.map(({ order }) => order)).toEqual(['a0', 'a9']);
    expect(found.get('p2')!.map(({ id }) => id)).toEqual(['m4', 'm2']);
  });
});

describe('a page that plays by itself', () => {
  it('fetches nothing, and nothing that it brings ends where it should not', () => {
    const brought = {
      pack: 'UEsD',
      words: JSON.stringify({ say: 'a </script><script>alert(1)</script> & "b"' }),
    };
    const html = playingPage({
      title: 'Loads & </title>',
      language: 'de',
      script: 'const end = "</script>";',
      style: 'main{color:red}',
      brought,
    });
    // HTML, "Restrictions for contents of script elements": an element ends at the first end tag of its name.
    const scripts = [...html.matchAll(/<script(?: type="text\/plain" id="(\w+)")?>([\s\S]*?)<\/script>/g)];
    expect(scripts.map(([, id]) => id)).toEqual(['pack', 'words', undefined]);
    expect(scripts[0]![2]).toBe('UEsD');
    expect(JSON.parse(scripts[1]![2]!)).toEqual(JSON.parse(brought.words));
    expect(runInNewContext(`${scripts[2]![2]} end`)).toBe('</script>');
    expect(html.match(/<\/title>/g)).toHaveLength(1);
    expect(html).toContain('<html lang="de">');
    expect(/Content-Security-Policy" content="([^"]+)"/.exec(html)![1]).toMatch(/^default-src 'none'; /);
    expect(html).not.toMatch(/https?:|src=|href=/);
  });
});
