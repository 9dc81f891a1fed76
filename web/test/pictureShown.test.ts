import { Store } from '@doodla/core/client';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { pictureShown } from '../src/sharing/pictureShown';

/** A camera that shows nothing yet. */
function aCamera() {
  const canvas = { width: 0, height: 0 } as Parameters<typeof pictureShown>[0]['canvas'];
  const frames = new Store(0);
  const show = (width: number) => {
    Object.assign(canvas, { width });
    frames.set(frames.get() + 1);
  };
  return { screen: { canvas, frames }, show };
}

describe('the first picture of a camera', () => {
  beforeEach(() => void vi.useFakeTimers());
  afterEach(() => void vi.useRealTimers());

  it('is waited for, so that its size is known', async () => {
    const { screen, show } = aCamera();
    let isShown = false;
    const shown = pictureShown(screen).then(() => (isShown = true));
    await vi.advanceTimersByTimeAsync(3000);
    show(0);
    await vi.advanceTimersByTimeAsync(0);
    expect(isShown).toBe(false);
    show(1280);
    await shown;
    expect(vi.getTimerCount()).toBe(0);
    await expect(pictureShown(screen)).resolves.toBeUndefined();
  });

  it('is missed in a sentence where none comes', async () => {
    const failed = expect(pictureShown(aCamera().screen)).rejects.toThrow('Nothing has been shown yet');
    await vi.advanceTimersByTimeAsync(11_000);
    await failed;
  });
});
