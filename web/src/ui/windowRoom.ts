import { Store } from '@doodla/core/client';
import { roomOf } from './roomOf';
import { interfaceScale, targetSize, typeSize } from './typeSize';

const measured = () => roomOf({ width: window.innerWidth, height: window.innerHeight }, interfaceScale());

/** The room of this window. */
export const windowRoom = new Store(measured());

function measure(): void {
  windowRoom.set(measured());
  // For what only looks otherwise, by the variant `compact:`.
  document.documentElement.toggleAttribute('data-compact', windowRoom.get().compact);
}

/** Keeps up with the window and with the size of letters, from now on. */
export function watchWindowRoom(): void {
  window.addEventListener('resize', measure);
  typeSize.subscribe(measure);
  targetSize.subscribe(measure);
  measure();
}
