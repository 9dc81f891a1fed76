import { Store } from '@doodla/core/client';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { VideoMaker } from '../src/media/videoMaker';
import type { PageDesk } from '../src/room/pageDesk';
import { CameraVideo } from '../src/sharing/cameraVideo';

/** A camera that shows nothing yet. */
function aCamera() {
  const canvas = { width: 0, height: 0 };
  const frames = new Store(0);
  const desk = { screen: { canvas, frames }, pageId: new Store('p') } as unknown as PageDesk;
  const show = (width: number) => {
    Object.assign(canvas, { width, height: width / 2 });
    frames.set(frames.get() + 1);
  };
  return { desk, show };
}

describe('recording a camera', () => {
  beforeEach(() => void vi.useFakeTimers());
  afterEach(() => {
    vi.useRealTimers();
    vi.restoreAllMocks();
  });

  it('waits for the first picture, whose size the video has', async () => {
    const sizes: number[] = [];
    vi.spyOn(VideoMaker, 'begin').mockImplementation((shape) => {
      sizes.push(shape.width);
      return Promise.reject(new Error('No more is wanted here.'));
    });
    const { desk, show } = aCamera();
    const begun = CameraVideo.begin(desk, undefined, () => undefined);
    const failed = expect(begun).rejects.toThrow('No more is wanted');
    await vi.advanceTimersByTimeAsync(3000);
    show(0);
    expect(sizes).toEqual([]);
    show(1280);
    await failed;
    expect(sizes).toEqual([1280]);
  });

  it('says so where none comes', async () => {
    const begun = CameraVideo.begin(aCamera().desk, undefined, () => undefined);
    const failed = expect(begun).rejects.toThrow('Nothing has been shown yet');
    await vi.advanceTimersByTimeAsync(11_000);
    await failed;
  });
});
