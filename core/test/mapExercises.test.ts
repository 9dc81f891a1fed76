import { describe, expect, it } from 'vitest';
import { tapped } from '../src/answers/index.js';
import type { ExerciseOrder } from '../src/exercises/index.js';
import { ExerciseProblem, makeExercise } from '../src/exercises/index.js';
import { rectsTouch } from '../src/geometry/rect.js';
import type { Mark } from '../src/index.js';
import { isMark, markBounds, textLayout } from '../src/index.js';
import { TaughtPage } from './helpers/answeredPage.js';
import { atlas } from './helpers/atlas.js';
import { common } from './helpers/marks.js';

const AREA = { x: 0, y: 0, width: 1280, height: 720 };
const SPOKEN = {
  ...{ across: '', down: '', most: '', least: '', isTrue: '', isFalse: '' },
  ...{ spin: '', roll: '', pick: '', language: 'en' },
};

describe('a map', () => {
  const mapOf = (kind: 'map' | 'mapNames', view: string, set: Partial<ExerciseOrder> = {}): Mark[] =>
    makeExercise({
      ...{ kind, text: '', title: 'A title', level: 'easy', seed: 1, area: AREA, words: SPOKEN },
      map: { view, atlas: atlas(view === 'world' ? '110m' : '50m') },
      ...set,
    }).map((mark, i) => ({ ...common(), ...mark, order: `a${String(i).padStart(5, '0')}1` }));

  it.each(['world', 'africa', 'asia', 'europe', 'northAmerica', 'southAmerica', 'oceania', 'MT'])(
    'of %s is sound marks within the page, and no name lies over another',
    (view) => {
      const marks = mapOf('map', view);
      for (const mark of marks) {
        expect(isMark(mark)).toBe(true);
        const { x, y, width, height } = markBounds(mark);
        expect(Math.min(x, y)).toBeGreaterThan(-1);
        expect(Math.max(x + width - AREA.width, y + height - AREA.height)).toBeLessThan(1);
      }
      const names = marks.flatMap((mark) => {
        if (mark.kind !== 'text' || mark.id === 'e1') return [];
        return [{ x: mark.x, y: mark.y, width: mark.width, height: textLayout(mark).height }];
      });
      expect(names.length).toBeGreaterThan(0);
      for (const [i, one] of names.entries())
        for (const other of names.slice(0, i))
          expect(rectsTouch(one, other), JSON.stringify([one, other])).toBe(false);
    },
  );

  it('shows a name by a tap on any of its islands, and hides it by the next', () => {
    const marks = mapOf('map', 'oceania', { level: 'medium' });
    const islands = marks.filter(({ alt, rule }) => alt === 'New Zealand' && rule?.tap);
    expect(islands.length).toBeGreaterThan(1);
    const name = marks.find((mark) => mark.kind === 'text' && mark.text === 'New Zealand')!;
    expect(name.hidden).toBe(true);
    const page = new TaughtPage(marks);
    for (const [island, hidden] of [
      [islands[0]!, false],
      [islands[1]!, true],
    ] as const) {
      expect(page.put('wren', tapped(page.as('wren'), island).marks)).toBeUndefined();
      expect(page.seenBy('class', name.id)!.hidden ?? false).toBe(hidden);
    }
  });

  it('colours what is listed, in the language of whoever makes it, and says what is not on it', () => {
    const fills = (text: string, language: string) =>
      mapOf('map', 'southAmerica', { text, words: { ...SPOKEN, language } }).flatMap((mark) =>
        mark.kind === 'path' && mark.style.fill === '#f5cf8a' ? (mark.alt ?? []) : [],
      );
    expect(new Set(fills('Brasilien\nPE', 'de'))).toEqual(new Set(['Brasilien', 'Peru']));
    expect(() => fills('Kenya', 'en')).toThrow(ExerciseProblem);
    expect(() => mapOf('mapNames', 'XX')).toThrow(ExerciseProblem);
  });

  it('asks for the largest where none are named, and for small ones by a ring about them', () => {
    expect(mapOf('mapNames', 'africa').filter(({ rule }) => rule?.moves)).toHaveLength(8);
    const rings = mapOf('mapNames', 'europe', { text: 'Malta\nLuxembourg' }).filter(
      (mark) => mark.kind === 'shape' && mark.form === 'ellipse',
    );
    expect(rings).toHaveLength(2);
    expect(rings.every(({ rule }) => rule?.takes)).toBe(true);
  });
});
