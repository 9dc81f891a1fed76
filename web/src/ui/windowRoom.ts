import { Store } from '@doodla/core/client';
import { interfaceScale, targetSize, typeSize } from './typeSize';

/** In less room than this the interface is laid out for a hand-held screen: the tools are a strip along the lower edge. */
const COMPACT = { width: 760, height: 480 };

/** How much room a window has, measured in CSS pixels at the usual size of letters. */
export interface WindowRoom {
  width: number;
  height: number;
  /** Whether it is laid out for a hand-held screen. */
  compact: boolean;
}

/** The room that a window has when the interface is `scale` times as large as usual. */
export function roomOf(size: { width: number; height: number }, scale: number): WindowRoom {
  const [width, height] = [size.width / scale, size.height / scale];
  return { width, height, compact: width < COMPACT.width || height < COMPACT.height };
}

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
