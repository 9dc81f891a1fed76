import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { DirtyArea, ViewPages } from '../src/follow/index.js';
import { rectsTouch } from '../src/index.js';
import type { Frame } from '../src/follow/index.js';

/** Shows views one after the other as a presenter does; `write` puts a mark on the page that is shown. */
function presenter() {
  const pages = new ViewPages<{ page: string }>();
  const written = new Set<string>();
  let made = 0;
  pages.current = { page: `p${(made += 1)}` };
  return {
    pages,
    written,
    /** Returns the page that the view got, and how. */
    show(view: number): [string, string] {
      const arrival = pages.arrive(view, written.has(pages.current!.page));
      if (arrival.kind === 'new') pages.took({ page: `p${(made += 1)}` });
      return [arrival.kind, pages.current!.page];
    },
    write: () => void written.add(pages.current!.page),
    made: () => made,
  };
}

describe('which page a view of a shown screen gets', () => {
  it('is the shown one while nothing is written on it, and one of its own from then on', () => {
    const screen = presenter();
    expect(screen.show(0)).toEqual(['same', 'p1']);
    expect(screen.show(1)).toEqual(['same', 'p1']);
    screen.write();
    expect(screen.show(2)).toEqual(['new', 'p2']);
    expect(screen.show(1)).toEqual(['known', 'p1']);
    // The first view has no page any more; the empty one that was left is taken.
    screen.write();
    expect(screen.show(0)).toEqual(['spare', 'p2']);
  });

  it('holds every mark where its view is, whatever is shown, written and seen again', () => {
    const step = fc.record({ view: fc.nat(5), writes: fc.boolean() });
    fc.assert(
      fc.property(fc.array(step, { maxLength: 40 }), (steps) => {
        const screen = presenter();
        const home = new Map<number, string>();
        for (const { view, writes } of steps) {
          const [, page] = screen.show(view);
          // What was written on a view is seen there again, and on no other.
          if (home.has(view)) expect(page).toBe(home.get(view));
          else expect([...home.values()]).not.toContain(page);
          if (!writes) continue;
          screen.write();
          home.set(view, page);
        }
        expect(screen.made()).toBeLessThanOrEqual(home.size + 2);
      }),
    );
  });

  it('is never one that another view has come back to', () => {
    const screen = presenter();
    screen.show(1);
    screen.write();
    screen.show(2);
    screen.show(1);
    expect(screen.show(2)).toEqual(['known', 'p2']);
    screen.write();
    expect(screen.show(0)).toEqual(['new', 'p3']);
  });

  it('goes on with the shown page when its picture was held still', () => {
    const screen = presenter();
    screen.show(0);
    screen.write();
    screen.pages.forget();
    expect(screen.pages.is(0)).toBe(false);
    expect(screen.show(0)).toEqual(['new', 'p2']);
  });
});

describe('the part of a screen that has changed', () => {
  const frame = (width: number, height: number, set: [number, number][] = []): Frame => {
    const grey = new Uint8Array(width * height);
    // Spots of four by four pixels: less is not always seen.
    for (const [x, y] of set)
      for (let dy = 0; dy < 4; dy++) grey.fill(200, (y + dy) * width + x, (y + dy) * width + x + 4);
    return { width, height, grey };
  };

  it('is nothing where nothing has, and holds every spot that has', () => {
    fc.assert(
      fc.property(fc.array(fc.tuple(fc.nat(96), fc.nat(66)), { maxLength: 5 }), (pixels) => {
        const { rect } = DirtyArea.between(frame(100, 70), frame(100, 70, pixels));
        expect(rect === undefined).toBe(pixels.length === 0);
        for (const [x, y] of pixels) {
          // At the edge of a tile, some of a spot may be too little to be seen.
          expect(rectsTouch(rect!, { x, y, width: 4, height: 4 })).toBe(true);
        }
      }),
    );
  });
});
