import fc from 'fast-check';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { joined, piecesOf } from '../src/explain/piecesOf';
import { PictureTrack } from '../src/explain/pictureTrack';

interface Added {
  at: number;
  isKey: boolean | undefined;
  drawn: unknown;
}

/** Something that looks as it is told, and a video that is written by hand. */
function aTrack(set: { failsAt?: number; encodes?: () => Promise<void> } = {}) {
  const added: Added[] = [];
  const canvas = { drawn: 'nothing' as unknown } as unknown as HTMLCanvasElement & { drawn: unknown };
  const source = {
    stamp: undefined as unknown,
    draw: (on: HTMLCanvasElement) => void ((on as typeof canvas).drawn = source.stamp),
  };
  const failed: Error[] = [];
  let finished = 0;
  const began = performance.now();
  const track = new PictureTrack(
    source,
    { width: 1280, height: 720, bits: 1e6 },
    {
      time: () => Math.round(performance.now() - began),
      begin: (_form, onBytes) =>
        Promise.resolve({
          canvas,
          type: 'video/mp4',
          async add(at, _seconds, isKey) {
            if (added.length === set.failsAt) throw new Error('No more.');
            added.push({ at, isKey, drawn: canvas.drawn });
            onBytes(Uint8Array.of(added.length));
            await set.encodes?.();
          },
          finish: () => Promise.resolve(void finished++),
        }),
      onFailed: (error) => failed.push(error),
    },
  );
  /** Something is seen, which whoever records is told of the first time. */
  const see = (stamp: unknown) => {
    source.stamp = stamp;
    track.look();
  };
  return { track, source, see, added, failed, finished: () => finished };
}

const pass = (ms: number) => vi.advanceTimersByTimeAsync(ms);
const times = (added: readonly Added[]) => added.map(({ at }) => at);

describe('a moving picture that is recorded', () => {
  beforeEach(() => vi.useFakeTimers({ toFake: ['setInterval', 'clearInterval', 'performance'] }));
  afterEach(() => vi.useRealTimers());

  it('is nothing as long as there is nothing to be seen, and then begins with its take', async () => {
    const { track, see, added } = aTrack();
    await pass(5000);
    expect([track.type, added]).toEqual([null, []]);
    see(1);
    await pass(0);
    expect(track.type).toBe('video/mp4');
    expect(added).toEqual([
      { at: 0, isKey: true, drawn: 1 },
      { at: 5, isKey: true, drawn: 1 },
    ]);
    await track.stop();
  });

  it('has each picture at its time, what stands still once a second, and soon a whole one after a change', async () => {
    const { track, source, see, added } = aTrack();
    await pass(2000);
    see('slide');
    await pass(300);
    source.stamp = 'next slide';
    await pass(3900);
    expect(times(added)).toEqual([0, 2, 2.4, 3.4, 4.4, 5.4]);
    // The second slide is complete in the file once another picture comes from which a player can begin.
    expect(added.map(({ isKey }) => isKey)).toEqual([true, true, false, true, false, false]);
    await pass(8000);
    const keys = added.filter(({ isKey }) => isKey).map(({ at }) => at);
    expect(keys.at(-1)).toBe(13.4);
    expect(keys).toHaveLength(4);
    // Nothing runs while there is nothing to be seen.
    source.stamp = undefined;
    await pass(100);
    const { length } = added;
    expect(vi.getTimerCount()).toBe(0);
    see('again');
    await pass(0);
    expect(added).toHaveLength(length + 1);
    await track.stop();
  });

  it('waits for a slow machine, picture by picture', async () => {
    let done = () => undefined as void;
    const { track, source, see, added } = aTrack({
      encodes: () => new Promise((resolve) => (done = resolve)),
    });
    see(1);
    await pass(100);
    source.stamp = 2;
    await pass(2000);
    expect(added).toHaveLength(1);
    done();
    await pass(0);
    expect(added).toHaveLength(2);
    source.stamp = 3;
    await pass(500);
    done();
    await pass(100);
    expect(added.map(({ drawn }) => drawn)).toEqual([1, 2, 3]);
    const stopped = track.stop();
    done();
    await stopped;
  });

  it('tells once that it cannot be recorded, keeps what there is, and ends it', async () => {
    const { track, source, see, added, failed, finished } = aTrack({ failsAt: 2 });
    see(1);
    for (const stamp of [2, 3, 4]) {
      await pass(100);
      source.stamp = stamp;
    }
    await pass(100);
    expect(failed.map(({ message }) => message)).toEqual(['No more.']);
    expect(added).toHaveLength(2);
    await track.stop();
    expect(joined(track.written())).toEqual(Uint8Array.of(1, 2));
    expect(track.written()).toEqual([]);
    expect(finished()).toBe(1);
  });
});

describe('what was written, in pieces', () => {
  it('is the same bytes, none of the pieces larger than may be', () => {
    fc.assert(
      fc.property(
        fc.array(fc.uint8Array({ maxLength: 40 })),
        fc.integer({ min: 1, max: 30 }),
        (bytes, most) => {
          const pieces = piecesOf(bytes, most);
          expect(joined(pieces)).toEqual(joined(bytes));
          expect(pieces.every(({ length }) => length > 0 && length <= most)).toBe(true);
        },
      ),
    );
  });
});
