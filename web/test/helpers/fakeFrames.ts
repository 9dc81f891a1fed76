import { vi } from 'vitest';

/** Stands in for the frames of a browser until `vi.unstubAllGlobals`. Returns what shows the next one. */
export function fakeFrames(): () => void {
  const frames = new Map<number, () => void>();
  let made = 0;
  vi.stubGlobal('requestAnimationFrame', (frame: () => void) => {
    frames.set(++made, frame);
    return made;
  });
  vi.stubGlobal('cancelAnimationFrame', (id: number) => frames.delete(id));
  return () => {
    for (const [id, frame] of frames) {
      frames.delete(id);
      frame();
    }
  };
}
