import type { Mark, Page, Pane } from '@doodla/core';
import { placeOf } from '@doodla/core';
import type { ReplayMoment } from '@doodla/core/replay';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { Canvas } from '../src/canvas/blankCanvas';
import { liveExtent, showLive } from '../src/replay/livePage';
import type { PlayedPage } from '../src/replay/playedPage';

const page = { id: 'p', width: 1280, height: 720 } as Page;
const anyPlace = fc.record({
  x: fc.integer({ min: -3000, max: 3000 }),
  y: fc.integer({ min: -3000, max: 3000 }),
  scale: fc.constantFrom(0.5, 1, 1.25, 2),
});
const anyPane = (id: number, width: number) =>
  anyPlace.map((place): Pane => ({ id, region: { x: 0, y: 0, width, height: 300 }, place }));
const anyPanes = fc.oneof(fc.constant([]), fc.tuple(anyPane(1, 900), anyPane(2, 300)));

/** Draws a mark of a pane; gives where its origin came to lie, how large a unit is, and how large the picture was drawn. */
function drawn(panes: readonly Pane[], pane: number, width: number) {
  const places: number[][] = [];
  const ctx = { setTransform: (...place: number[]) => void places.push(place) };
  const canvas = { width: 1, height: 1, getContext: () => ctx };
  const mark = { id: 'm', kind: 'text', pane, blocks: [] } as unknown as Mark;
  const played = { shownAt: () => [mark], pictures: { get: () => undefined } } as unknown as PlayedPage;
  let picture: number[] = [];
  const draw = (_: unknown, across: number, down: number) => void (picture = [across, down]);
  const moment = { growing: [] } as unknown as ReplayMoment;
  try {
    const live = { page: 'p', panes, draw };
    showLive(canvas as unknown as Canvas, played, moment, { page, live }, width);
  } catch {
    // What comes after a mark's place is none of this test: the text has no content.
  }
  const [scale, , , , x, y] = places.at(-1)!;
  return { scale: scale!, x: x!, y: y!, picture };
}

describe('a page under which something moves', () => {
  it('has its picture from edge to edge, and each mark where its part of the glass was scrolled to', () => {
    fc.assert(
      fc.property(
        anyPanes,
        fc.constantFrom(0, 1, 2),
        fc.constantFrom(640, 1280, 1920),
        (panes, id, width) => {
          const { scale, x, y, picture } = drawn(panes, id, width);
          const [place, k] = [placeOf(panes, id), width / page.width];
          expect(picture).toEqual([width, (width * 9) / 16]);
          expect(scale).toBeCloseTo(k * place.scale, 6);
          expect(x).toBeCloseTo(k * place.x, 6);
          expect(y).toBeCloseTo(k * place.y, 6);
        },
      ),
    );
  });

  it('shows the part of the plane to which its largest part was scrolled', () => {
    const region = { x: 0, y: 0, width: 900, height: 700 };
    const live = { page: 'p', panes: [{ id: 1, region, place: { x: 0, y: -300, scale: 2 } }] };
    expect(liveExtent(page, live)).toEqual({ x: -0, y: 150, width: 640, height: 360 });
    expect(liveExtent(page, { page: 'p', panes: [] })).toMatchObject({ width: 1280, height: 720 });
  });
});
