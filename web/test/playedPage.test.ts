import type { Page } from '@doodla/core';
import { Replay } from '@doodla/core/replay';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { blankCanvas } from '../src/canvas/blankCanvas';
import { PlayedPage } from '../src/replay/playedPage';
import type { Scenery } from '../src/replay/scenery';

const page = { id: 'p', width: 100, height: 50, surface: { kind: 'blank' } } as unknown as Page;

/** A canvas on which nothing is seen. */
class Unseen {
  constructor(
    readonly width: number,
    readonly height: number,
  ) {}
  getContext() {
    return { setTransform() {}, drawImage() {} };
  }
}

describe('the ground of a page that plays', () => {
  beforeEach(() => vi.stubGlobal('OffscreenCanvas', Unseen));
  afterEach(() => vi.unstubAllGlobals());

  it('is drawn anew where another prepared patch is uncovered, and only then', async () => {
    const drawn: number[] = [];
    const scenery: Scenery = {
      pictures: { get: () => undefined },
      pageNow: () => page,
      extentOf: () => ({ x: 0, y: 0, width: 100, height: 50 }),
      prepared: () => [],
      surface(_page, width) {
        drawn.push(width);
        return Promise.resolve(blankCanvas(width, width / 2));
      },
      loadPictures: () => Promise.resolve(),
    };
    const replay = new Replay(
      { operations: [], turns: [] },
      { counts: () => true, leads: () => true, longestPause: Infinity },
    );
    const played = new PlayedPage(scenery, replay, () => undefined);
    const covered = await played.groundOf(page, 400);
    played.uncover(['answer']);
    const open = await played.groundOf(page, 400);
    expect(open).not.toBe(covered);
    played.uncover(['answer']);
    expect(await played.groundOf(page, 400)).toBe(open);
    expect(drawn).toEqual([400, 400]);
    played.close();
  });
});
