import { packInk, writeInk } from '@doodla/core/handout/ink';
import { afterEach, describe, expect, it, vi } from 'vitest';
import { inkHelpers } from '../src/handout/inkHelpers';

/** Stands for a worker that answers calls as comlink does; it says how many there are. */
class StandIn extends EventTarget {
  static readonly made: StandIn[] = [];
  calls = 0;

  constructor() {
    super();
    StandIn.made.push(this);
  }

  start(): void {}
  terminate(): void {}

  postMessage({ id, argumentList }: { id: string; argumentList: { value: Float64Array }[] }): void {
    this.calls += 1;
    const value = writeInk(argumentList[0]!.value);
    const data = { id, type: 'RAW', value };
    queueMicrotask(() => this.dispatchEvent(new MessageEvent('message', { data })));
  }
}

const packed = () =>
  packInk([{ points: [1, 1, 0.5, 0, 30, 9, 0.5, 16], style: { nature: 'pen', width: 4 } }]);

describe('workers beside the one that puts a handout together', () => {
  afterEach(() => {
    vi.unstubAllGlobals();
    StandIn.made.length = 0;
  });

  it.each([1, 0, undefined])('are none where there are %s processors', (processors) => {
    vi.stubGlobal('Worker', StandIn);
    vi.stubGlobal('navigator', { hardwareConcurrency: processors });
    expect(inkHelpers()).toBeUndefined();
  });

  it('are none where a worker cannot have its own', () => {
    vi.stubGlobal('Worker', undefined);
    expect(inkHelpers(4)).toBeUndefined();
  });

  it.each([
    [2, 1],
    [3, 2],
    [16, 3],
  ])('of %i processors there are %i, asked in turn and made when they are', async (processors, count) => {
    vi.stubGlobal('Worker', StandIn);
    const ink = inkHelpers(processors)!;
    expect(StandIn.made).toHaveLength(0);
    for (let n = 0; n < 2 * count; n++) expect(await ink(packed())).toEqual(writeInk(packed()));
    expect(StandIn.made.map(({ calls }) => calls)).toEqual(new Array(count).fill(2));
  });

  it('say so where they cannot be fetched, and are fetched anew', async () => {
    vi.stubGlobal('Worker', StandIn);
    const ink = inkHelpers(2)!;
    await ink(packed());
    const [first] = StandIn.made;
    vi.spyOn(first!, 'postMessage').mockImplementation(() => first!.dispatchEvent(new Event('error')));
    await expect(ink(packed())).rejects.toThrow('could not be fetched');
    expect(await ink(packed())).toEqual(writeInk(packed()));
    expect(StandIn.made).toHaveLength(2);
  });
});
