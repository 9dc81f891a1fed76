import type { Mark, MarkOf } from '@doodla/core';
import { pointsOf } from '@doodla/core';
import { gaugeOf, ImpossibleFigure, ownGauge } from '@doodla/core/measure';
import { describe, expect, it } from 'vitest';
import { aPath, aShape } from '../../core/test/helpers/marks';
import { pageGauge, setAngle, setGauge, setRadius, setSide, showFigure } from '../src/desk/measures';
import { Selection } from '../src/desk/selection';
import { cornerLetter } from '../src/selection/cornerLetter';
import { TestDesk } from './helpers/testDesk';

/** A desk of a teacher with some marks. */
function deskWith(...marks: Mark[]) {
  const desk = new TestDesk(marks, { id: 'ada', role: 'teacher', tables: [] });
  return Object.assign(desk, { selection: new Selection(desk) });
}

const triangle = aPath({ id: 't', course: 'straight', closed: true, points: [100, 100, 400, 100, 400, 300] });
const now = (desk: TestDesk, id: string) => desk.mark(id) as MarkOf<'path'>;

describe('measures of what is selected', () => {
  it('are shown and taken away one by one, in the unit of the page', () => {
    const desk = deskWith(triangle);
    showFigure(desk, [now(desk, 't')], 'angles', true);
    showFigure(desk, [now(desk, 't')], 'area', true);
    expect(now(desk, 't').measures).toEqual({ shown: ['angles', 'area'], gauge: pageGauge(desk) });
    showFigure(desk, [now(desk, 't')], 'angles', false);
    expect(now(desk, 't').measures!.shown).toEqual(['area']);
    expect(pageGauge(desk)).toEqual(gaugeOf('cm', desk.page, false));
  });

  it('are all said in another scale at once, in one step', () => {
    const other = aPath({ id: 'o', points: [0, 0, 200, 0] });
    const desk = deskWith(triangle, other);
    showFigure(desk, [now(desk, 't')], 'sides', true);
    const map = ownGauge(200, 5, 'km', pageGauge(desk));
    setGauge(desk, map);
    expect(desk.done).toHaveLength(2);
    expect(desk.target.state.pages.get(desk.page.id)!.gauge).toEqual(map);
    expect(now(desk, 't').measures!.gauge).toEqual(map);
    expect(now(desk, 'o').measures).toBeUndefined();
  });

  it('are obeyed when they are typed: side, angle, radius', () => {
    const desk = deskWith(triangle);
    setSide(desk, now(desk, 't'), 0, 150);
    expect(pointsOf(now(desk, 't').points).slice(0, 2)).toEqual([
      [100, 100],
      [250, 100],
    ]);
    setAngle(desk, now(desk, 't'), 0, 90);
    const [a, b, c] = pointsOf(now(desk, 't').points);
    expect((b![0] - a![0]) * (c![0] - a![0]) + (b![1] - a![1]) * (c![1] - a![1])).toBeCloseTo(0, -1);
    expect(() => setAngle(desk, now(desk, 't'), 0, 200)).toThrow(ImpossibleFigure);
    const circle = aShape({
      id: 'c',
      form: 'ellipse',
      x: 100,
      y: 100,
      width: 80,
      height: 80,
      rotation: 0,
      flip: false,
    });
    const round = deskWith(circle, aPath({ id: 'arc', course: 'arc', points: [10, 0, 0, 10, -10, 0] }));
    setRadius(round, circle, 100);
    expect(round.mark('c')).toMatchObject({ x: 40, y: 40, width: 200, height: 200 });
    setRadius(round, now(round, 'arc'), 20);
    expect(now(round, 'arc').points.map(Math.round)).toEqual([20, 0, 0, 20, -20, 0]);
  });

  it('make a ready shape a polygon that keeps what it shows', () => {
    const box = aShape({
      id: 'b',
      form: 'rectangle',
      x: 0,
      y: 0,
      width: 100,
      height: 50,
      rotation: 0,
      flip: false,
    });
    const desk = deskWith(box);
    showFigure(desk, [box], 'sides', true);
    setSide(desk, desk.mark('b') as MarkOf<'shape'>, 0, 200);
    const [made] = desk.target.state.marks.values();
    expect(made).toMatchObject({ kind: 'path', closed: true, measures: { shown: ['sides'] } });
    expect([...desk.selection.ids.get()]).toEqual([made!.id]);
  });

  it('are told apart by letters, however many there are', () => {
    expect([0, 1, 25, 26, 52].map(cornerLetter)).toEqual(['A', 'B', 'Z', 'A1', 'A2']);
  });
});
