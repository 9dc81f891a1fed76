import type { LiveScreen } from '../live/liveScreen';
import { t } from '../words';

/** A camera shows something by then. */
const FIRST_PICTURE_MS = 10_000;

/** Resolves when there is a picture, whose size is known then. Throws an error with a sentence where none comes. */
export function pictureShown({ canvas, frames }: Pick<LiveScreen, 'canvas' | 'frames'>): Promise<void> {
  if (canvas.width > 0) return Promise.resolve();
  return new Promise((resolve, reject) => {
    const end = setTimeout(() => {
      stop();
      reject(new Error(t('sharing.nothingIsShown')));
    }, FIRST_PICTURE_MS);
    const stop = frames.subscribe(() => {
      if (canvas.width === 0) return;
      clearTimeout(end);
      stop();
      resolve();
    });
  });
}
