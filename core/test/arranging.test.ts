import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { Point } from '../src/index.js';
import {
  byOrder,
  cornerChanges,
  draggedBox,
  movedCorner,
  nudgedPart,
  ordersBeside,
  orderedPages,
  pathThrough,
  reorderedTo,
  snapAngle,
  SpatialIndex,
  turnedBack,
  withCorners,
} from '../src/index.js';
import { aPage, aShape, aStroke } from './helpers/marks.js';

describe('the order of pages', () => {
  const pages = ['a0', 'a1', 'a2', 'a3'].map((order, i) => aPage({ id: `p${i}`, order, removed: i === 2 }));
  const seen = (orders: string[]) =>
    orderedPages([...pages, ...orders.map((order, i) => aPage({ id: `new${i}`, order }))]).map(
      ({ id }) => id,
    );

  it('puts new ones beside one, or at the end where it is not there', () => {
    expect(seen(ordersBeside(pages, 'p0', { count: 2 }))).toEqual(['p0', 'new0', 'new1', 'p1', 'p3']);
    expect(seen(ordersBeside(pages, 'p0', { where: 'before' }))).toEqual(['new0', 'p0', 'p1', 'p3']);
    expect(seen(ordersBeside(pages, 'gone'))).toEqual(['p0', 'p1', 'p3', 'new0']);
  });

  it('leaves a removed page its place', () => {
    const [order] = ordersBeside(pages, 'p1');
    const back = [...pages.map((page) => ({ ...page, removed: false })), aPage({ id: 'new', order: order! })];
    expect(orderedPages(back).map(({ id }) => id)).toEqual(['p0', 'p1', 'new', 'p2', 'p3']);
  });
});

describe('the order of marks', () => {
  const marks = ['a0', 'a1', 'a2', 'a3', 'a4'].map((order, i) => aStroke({ id: `m${i}`, order }));

  it.each([
    ['front', ['m0', 'm2', 'm4', 'm1', 'm3']],
    ['back', ['m1', 'm3', 'm0', 'm2', 'm4']],
    ['up', ['m0', 'm2', 'm4', 'm1', 'm3']],
    ['down', ['m1', 'm3', 'm0', 'm2', 'm4']],
  ] as const)('keeps the chosen ones together and in their order: to the %s', (to, expected) => {
    const chosen = [marks[1]!, marks[3]!];
    const orders = reorderedTo(chosen, marks, to);
    const after = marks.map((mark) => {
      const at = chosen.indexOf(mark);
      return at < 0 ? mark : { ...mark, order: orders[at]! };
    });
    expect(after.sort(byOrder).map(({ id }) => id)).toEqual(expected);
  });

  it('is found once, and anew after each change', () => {
    const index = new SpatialIndex(marks);
    expect(index.all()).toBe(index.all());
    index.set(aStroke({ id: 'm0', order: 'a9' }));
    expect(index.all().map(({ id }) => id)).toEqual(['m1', 'm2', 'm3', 'm4', 'm0']);
    index.delete('m3');
    expect(index.all().map(({ id }) => id)).toEqual(['m1', 'm2', 'm4', 'm0']);
  });
});

describe('dragging', () => {
  const place = fc.record({ x: fc.integer({ min: -500, max: 500 }), y: fc.integer({ min: -500, max: 500 }) });

  it('makes a box that has the first point at a corner, or in its middle', () => {
    fc.assert(
      fc.property(place, place, fc.boolean(), fc.boolean(), (from, to, square, centred) => {
        const { x, y, width, height } = draggedBox(from, to, { square, centred });
        if (square) expect(width).toBe(height);
        if (centred && width > 1 && height > 1) {
          expect([x + width / 2, y + height / 2]).toEqual([from.x, from.y]);
        } else if (!centred) {
          expect([x, x + width].some((side) => Math.abs(side - from.x) <= 1)).toBe(true);
          expect([y, y + height].some((side) => Math.abs(side - from.y) <= 1)).toBe(true);
        }
      }),
    );
  });

  it('keeps a line to steps of 15° and as long as it is', () => {
    fc.assert(
      fc.property(place, place, (from, to) => {
        const at = snapAngle(from, to);
        const length = Math.hypot(to.x - from.x, to.y - from.y);
        expect(Math.hypot(at.x - from.x, at.y - from.y)).toBeCloseTo(length, 6);
        if (length === 0) return;
        const degrees = (Math.atan2(at.y - from.y, at.x - from.x) * 180) / Math.PI;
        expect(Math.abs(degrees / 15 - Math.round(degrees / 15))).toBeLessThan(1e-9);
      }),
    );
  });

  it('is measured along the sides of a turned frame', () => {
    const { x, y } = turnedBack({ rotation: 90 }, { x: 0, y: 0 }, { x: 0, y: 10 });
    expect(x).toBeCloseTo(10);
    expect(y).toBeCloseTo(0);
  });
});

describe('corners', () => {
  const id = () => 'new';

  it('of a shape are those it is drawn with, and moving one makes it a path', () => {
    const shape = aShape({ form: 'rectangle', x: 0, y: 0, width: 100, height: 60, rotation: 0, flip: false });
    const path = withCorners(shape, id)!;
    expect(path.points).toEqual([0, 0, 100, 0, 100, 60, 0, 60]);
    const changed = pathThrough(path, [
      [0, 0],
      [100, 0],
      [120, 70.004],
      [0, 60],
    ]);
    expect(changed.points).toEqual([0, 0, 100, 0, 120, 70, 0, 60]);
    expect(cornerChanges(shape, changed)).toEqual([
      { do: 'remove', mark: shape.id },
      { do: 'add', mark: changed },
    ]);
    expect(cornerChanges(changed, changed)).toMatchObject([{ do: 'patch', mark: 'new' }]);
    expect(withCorners(aShape({ form: 'ellipse' }), id)).toBeUndefined();
  });

  it('of a triangle become exactly right where they nearly are (Thales: on the circle over the opposite side)', () => {
    const points: Point[] = [
      [50, 49],
      [0, 0],
      [100, 0],
    ];
    const [snapped] = movedCorner(points, 0, [50, 49]);
    expect(Math.hypot(snapped![0] - 50, snapped![1])).toBeCloseTo(50);
    expect(movedCorner(points, 0, [50, 20])[0]).toEqual([50, 20]);
  });
});

describe('a part of a picture that is nudged by keys', () => {
  it('is moved as it is, and resized by its lower right corner', () => {
    const part = { x: 0.2, y: 0.2, width: 0.5, height: 0.4 };
    expect(nudgedPart(part, 0.1, -0.1, false)).toEqual({ ...part, x: expect.closeTo(0.3) as number, y: 0.1 });
    expect(nudgedPart(part, -0.1, 0.1, true)).toEqual({ ...part, width: 0.4, height: 0.5 });
  });

  it('never leaves the picture nor becomes nothing, however long one presses', () => {
    const press = fc.record({
      dx: fc.constantFrom(-0.05, 0, 0.05),
      dy: fc.constantFrom(-0.05, 0, 0.05),
      resize: fc.boolean(),
    });
    fc.assert(
      fc.property(fc.array(press, { maxLength: 80 }), (presses) => {
        let part = { x: 0, y: 0, width: 1, height: 1 };
        for (const { dx, dy, resize } of presses) part = nudgedPart(part, dx, dy, resize);
        expect(Math.min(part.x, part.y)).toBeGreaterThanOrEqual(0);
        expect(Math.min(part.width, part.height)).toBeGreaterThan(0.04);
        expect(Math.max(part.x + part.width, part.y + part.height)).toBeLessThanOrEqual(1 + 1e-9);
      }),
    );
  });
});
