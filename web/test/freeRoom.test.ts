import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { roomForPage, roomForWidth } from '../src/stage/freeRoom';

const STAGE = { width: 1280, height: 800 };
const A4 = { width: 794, height: 1123 };
const TOOLS = { x: 8, y: 70, width: 152, height: 660 };
const PAGES = { x: 654, y: 736, width: 618, height: 56 };
const CLASS = { x: 1096, y: 8, width: 176, height: 196 };

const inside = ({ left, right, top, bottom }: ReturnType<typeof roomForPage>) => ({
  x: left,
  y: top,
  width: STAGE.width - left - right,
  height: STAGE.height - top - bottom,
});

describe('the room between the bars', () => {
  it('leaves a page as large as it can be: above a bar rather than beside it', () => {
    const room = inside(roomForPage(A4, STAGE, [TOOLS, PAGES, CLASS]));
    expect(room).toEqual({ x: 172, y: 12, width: 912, height: 712 });
    expect(inside(roomForPage(A4, STAGE, []))).toEqual({ x: 12, y: 12, width: 1256, height: 776 });
  });

  it('of a page as wide as possible lies beside the tools and under what is above', () => {
    const top = { x: 430, y: 8, width: 840, height: 52 };
    expect(inside(roomForWidth(STAGE, [TOOLS, PAGES, top]))).toMatchObject({ x: 172, width: 1096 });
  });

  it('has no bar in it, wherever the bars are', () => {
    const bar = fc.record({
      x: fc.integer({ min: -50, max: 1200 }),
      y: fc.integer({ min: -50, max: 760 }),
      width: fc.integer({ min: 20, max: 700 }),
      height: fc.integer({ min: 20, max: 500 }),
    });
    fc.assert(
      fc.property(fc.array(bar, { maxLength: 6 }), (bars) => {
        const room = inside(roomForPage(A4, STAGE, bars));
        const isWhole = room.width === STAGE.width && room.height === STAGE.height;
        for (const { x, y, width, height } of bars) {
          const isApart =
            x + width <= room.x ||
            y + height <= room.y ||
            x >= room.x + room.width ||
            y >= room.y + room.height;
          expect(isApart || isWhole).toBe(true);
        }
      }),
      { numRuns: 60 },
    );
  });
});
