import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';

/** The moments anew, as after loading the page. */
async function fresh() {
  vi.resetModules();
  return import('../src/ui/moments');
}

/** Whether a promise has settled by now. */
async function hasPassed(promise: Promise<void>): Promise<boolean> {
  let passed = false;
  void promise.then(() => (passed = true));
  await vi.advanceTimersByTimeAsync(0);
  return passed;
}

beforeEach(() => void vi.useFakeTimers());
afterEach(() => void vi.useRealTimers());

describe('what waits for the first page', () => {
  it('waits until it shows', async () => {
    const { pageShows } = await fresh();
    expect(await hasPassed(pageShows.passed)).toBe(false);
    pageShows.come();
    expect(await hasPassed(pageShows.passed)).toBe(true);
  });

  it('loses patience with a page that does not come, and later with its tools', async () => {
    const { pageShows, toolsHere, limitWaiting } = await fresh();
    limitWaiting();
    await vi.advanceTimersByTimeAsync(3900);
    expect(await hasPassed(pageShows.passed)).toBe(false);
    await vi.advanceTimersByTimeAsync(200);
    expect(await hasPassed(pageShows.passed)).toBe(true);
    expect(await hasPassed(toolsHere.passed)).toBe(false);
    await vi.advanceTimersByTimeAsync(4000);
    expect(await hasPassed(toolsHere.passed)).toBe(true);
  });

  it('gives the tools their time from when the page shows', async () => {
    const { pageShows, toolsHere, limitWaiting } = await fresh();
    limitWaiting();
    await vi.advanceTimersByTimeAsync(3000);
    pageShows.come();
    await vi.advanceTimersByTimeAsync(3900);
    expect(await hasPassed(toolsHere.passed)).toBe(false);
    await vi.advanceTimersByTimeAsync(200);
    expect(await hasPassed(toolsHere.passed)).toBe(true);
  });

  it('asks again for what could not be fetched, and takes it when it comes', async () => {
    const { patiently } = await fresh();
    const load = vi.fn().mockRejectedValueOnce(new TypeError('no connection')).mockResolvedValue('tools');
    const fetched = patiently(load);
    await vi.advanceTimersByTimeAsync(1900);
    expect(load).toHaveBeenCalledTimes(1);
    await vi.advanceTimersByTimeAsync(200);
    expect(await fetched).toBe('tools');
    expect(load).toHaveBeenCalledTimes(2);
  });

  it('waits for nothing with somebody who prepares', async () => {
    const { pageShows, toolsHere, waitForNothing } = await fresh();
    waitForNothing();
    expect(await hasPassed(pageShows.passed)).toBe(true);
    expect(await hasPassed(toolsHere.passed)).toBe(true);
  });
});
