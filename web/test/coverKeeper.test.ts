import { Store } from '@doodla/core/client';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { CoverKeeper } from '../src/classroom/coverKeeper';

type Desk = ConstructorParameters<typeof CoverKeeper>[0];

const PICTURE = new Blob(['picture']);
let marks: Store<number>;
let sent: string[];

beforeEach(() => {
  vi.useFakeTimers();
  marks = new Store(0);
  sent = [];
});
afterEach(() => vi.useRealTimers());

const write = () => marks.set(marks.get() + 1);

function keeping(sitting: string | undefined, draw = () => Promise.resolve<Blob | undefined>(PICTURE)) {
  const desk = {
    marksChanged: marks,
    pages: new Store([]),
    room: { lesson: 'l1' },
    sitting,
  } as unknown as Desk;
  return new CoverKeeper(desk, draw, (of, id) => {
    sent.push(`${of} ${id}`);
    return Promise.resolve();
  });
}

describe('the picture of a lesson or class', () => {
  it('is drawn when nobody has written for a while, and not again too soon', async () => {
    const keeper = keeping('s1');
    for (let i = 0; i < 10; i++) {
      write();
      await vi.advanceTimersByTimeAsync(3000);
    }
    expect(sent).toEqual([]);
    await vi.advanceTimersByTimeAsync(1000);
    expect(sent).toEqual(['sittings s1']);
    write();
    await vi.advanceTimersByTimeAsync(20_000);
    expect(sent).toHaveLength(1);
    await vi.advanceTimersByTimeAsync(10_000);
    expect(sent).toHaveLength(2);
    keeper.stop();
    write();
    await vi.advanceTimersByTimeAsync(100_000);
    expect(sent).toHaveLength(2);
  });

  it('is the lesson’s between classes; what cannot be drawn is drawn after the next change', async () => {
    let works = false;
    const keeper = keeping(undefined, () =>
      works ? Promise.resolve(PICTURE) : Promise.reject(new Error('no page')),
    );
    write();
    await vi.advanceTimersByTimeAsync(5000);
    expect(sent).toEqual([]);
    works = true;
    write();
    await vi.advanceTimersByTimeAsync(40_000);
    expect(sent).toEqual(['lessons l1']);
    keeper.stop();
  });
});
