import { beforeEach, describe, expect, it, vi } from 'vitest';

let needFace: typeof import('../src/canvas/faces').needFace;

/** A browser that knows no face yet. */
beforeEach(async () => {
  vi.resetModules();
  ({ needFace } = await import('../src/canvas/faces'));
});

describe('a face', () => {
  it('has text laid out anew when it comes, and never again', async () => {
    const load = vi.fn(() => Promise.resolve('the font'));
    vi.stubGlobal(
      'FontFace',
      class {
        load = load;
      },
    );
    vi.stubGlobal('document', { fonts: { add: () => undefined } });
    expect(await Promise.all([needFace('andika-bold'), needFace('andika-bold')])).toEqual([true, true]);
    expect(await needFace('andika-bold')).toBe(false);
    expect(load).toHaveBeenCalledTimes(1);
    expect(await needFace('andika')).toBe(false);
    vi.unstubAllGlobals();
  });

  it('is fetched again where that has failed', async () => {
    let fails = true;
    const load = () => (fails ? Promise.reject(new Error('offline')) : Promise.resolve('the font'));
    vi.stubGlobal(
      'FontFace',
      class {
        load = load;
      },
    );
    vi.stubGlobal('document', { fonts: { add: () => undefined } });
    await expect(needFace('serif')).rejects.toThrow('offline');
    fails = false;
    await expect(needFace('serif')).resolves.toBeDefined();
    vi.unstubAllGlobals();
  });
});
