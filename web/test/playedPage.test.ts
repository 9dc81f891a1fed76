import type { LoggedOperation, Mark, Page } from '@doodla/core';
import { standInId } from '@doodla/core';
import { Replay } from '@doodla/core/replay';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { aShape } from '../../core/test/helpers/marks.js';
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

describe('a page that answers', () => {
  it('plays what was prepared until it was answered, and then what stands for it', () => {
    const box = (id: string, set: Partial<Mark> = {}): Mark => aShape({ id, page: 'p', ...set } as never);
    const stands = (set: Partial<Mark>): Mark =>
      box(standInId('card', 'class'), { standIn: { for: 'card', tries: 0, taps: 0 }, ...set });
    const answers = [stands({ order: 'a5' }), stands({ hidden: true })];
    const operations = answers.map((mark, i): LoggedOperation => ({
      seq: i + 1,
      author: 'wren',
      at: 1000 * (i + 1),
      operation: { id: `o${i}`, changes: [{ do: 'add', mark }] },
    }));
    const replay = new Replay(
      { operations, turns: [] },
      { page: 'p', counts: () => true, leads: () => true, longestPause: Infinity },
    );
    const scenery = {
      pageNow: () => page,
      prepared: () => [box('card'), box('other'), box('secret', { hidden: true })],
    } as unknown as Scenery;
    const played = new PlayedPage(scenery, replay, () => undefined);
    const seen = [0, 1, 2].map((count) =>
      played.shownAt({ page: 'p', count, growing: [] }).map(({ id }) => id),
    );
    expect(seen).toEqual([['other', 'card'], ['other', standInId('card', 'class')], ['other']]);
    played.close();
  });
});
