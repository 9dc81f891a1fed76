import type { GluedMark } from '@doodla/core/glue';
import { beforeEach, describe, expect, it, vi } from 'vitest';
import { aShape } from '../../core/test/helpers/marks';
import { KeptMarks } from '../src/page/keptMarks';

type Changes = Record<string, { newValue?: unknown }>;

/** The browser's store for extensions, as far as it is used: values are copied, and all who listen hear of changes. */
class FakeStore {
  readonly values = new Map<string, unknown>();
  readonly heard: ((changes: Changes) => void)[] = [];
  room = Infinity;
  readonly onChanged = {
    addListener: (listener: (changes: Changes) => void) => this.heard.push(listener),
    removeListener: (listener: (changes: Changes) => void) =>
      this.heard.splice(this.heard.indexOf(listener), 1),
  };

  getKeys = () => Promise.resolve([...this.values.keys()]);

  get = (keys: string[]) =>
    Promise.resolve(Object.fromEntries(keys.map((key) => [key, this.values.get(key)])));

  set = async (values: Record<string, unknown>) => {
    await Promise.resolve();
    if (this.values.size + Object.keys(values).length > this.room)
      throw new Error('QUOTA_BYTES quota exceeded');
    const changes: Changes = {};
    for (const [key, value] of Object.entries(values)) {
      // Browsers give objects back with their keys in another order.
      const copy = JSON.parse(JSON.stringify(value, Object.keys(flat(value)).sort())) as unknown;
      this.values.set(key, value);
      changes[key] = { newValue: copy && value };
    }
    for (const listener of this.heard) listener(changes);
  };

  remove = async (keys: string[]) => {
    await Promise.resolve();
    for (const key of keys) this.values.delete(key);
    for (const listener of this.heard) listener(Object.fromEntries(keys.map((key) => [key, {}])));
  };
}

const flat = (value: unknown): Record<string, unknown> => (value ?? {}) as Record<string, unknown>;

let store: FakeStore;

beforeEach(() => {
  store = new FakeStore();
  vi.stubGlobal('chrome', { storage: { local: store } });
  vi.stubGlobal('document', { title: 'Bridges' });
  return () => vi.unstubAllGlobals();
});

const ADDRESS = 'https://docs.example/bridges';
const glued = (id: string, x = 1, createdAt = 0): GluedMark => ({
  mark: aShape({ id, x, createdAt }),
  glue: { to: 'page' },
});
const open = (
  heard: (marks: ReadonlyMap<string, GluedMark | undefined>) => void = () => undefined,
  failed = () => undefined,
) => new KeptMarks(ADDRESS, heard, failed);

describe('marks kept by address', () => {
  it('are there again for the next tab, the first made first', async () => {
    const kept = open();
    kept.keep(new Map([['b', glued('b', 1, 20)]]));
    kept.keep(new Map([['a', glued('a', 1, 10)]]));
    await kept.settled();
    expect([...(await open().load()).keys()]).toEqual(['a', 'b']);
    kept.keep(new Map([['a', undefined]]));
    await kept.settled();
    expect([...(await open().load()).keys()]).toEqual(['b']);
    const elsewhere = new KeptMarks(
      'https://docs.example/other',
      () => undefined,
      () => undefined,
    );
    expect((await elsewhere.load()).size).toBe(0);
  });

  it('of two tabs come together, and neither hears its own', async () => {
    const [inOne, inTwo]: string[][] = [[], []];
    const one = open((marks) => inOne!.push(...marks.keys()));
    const two = open((marks) => inTwo!.push(...marks.keys()));
    one.keep(new Map([['a', glued('a')]]));
    two.keep(new Map([['b', glued('b')]]));
    await Promise.all([one.settled(), two.settled()]);
    expect([inOne, inTwo]).toEqual([['b'], ['a']]);
    one.keep(new Map([['b', undefined]]));
    await one.settled();
    expect([inOne, inTwo]).toEqual([['b'], ['a', 'b']]);
    one.close();
    two.keep(new Map([['c', glued('c')]]));
    await two.settled();
    expect(inOne).toEqual(['b']);
  });

  it('end as they were last, however quickly they change', async () => {
    const kept = open();
    for (let x = 1; x <= 30; x++) kept.keep(new Map([['a', glued('a', x)]]));
    await kept.settled();
    const [mark] = [...(await open().load()).values()];
    expect(mark!.mark).toMatchObject({ x: 30 });
  });

  it('that do not fit are said, stay on the page, and are kept once there is room', async () => {
    const failed = vi.fn();
    store.room = 1;
    const kept = open(undefined, failed as never);
    kept.keep(new Map([['a', glued('a')]]));
    await kept.settled();
    expect(failed).toHaveBeenCalledOnce();
    store.room = Infinity;
    kept.keep(new Map([['b', glued('b')]]));
    await kept.settled();
    expect((await open().load()).size).toBe(2);
  });

  it('that are none are left out', async () => {
    await store.set({ [`${[...'x'].length}`]: 1 });
    const kept = open();
    kept.keep(new Map([['a', glued('a')]]));
    await kept.settled();
    const key = [...store.values.keys()].find((name) => name.endsWith(':a'))!;
    store.values.set(key, { mark: { id: 'a', html: '<b>' }, glue: { to: 'page' } });
    expect((await open().load()).size).toBe(0);
  });
});
