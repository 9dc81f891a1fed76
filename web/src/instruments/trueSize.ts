import { trueScale } from '@doodla/core/instruments';
import type { Stage } from '../stage/stage';

/** Each display has a size of its own; browsers tell them apart by their measures alone. */
const key = () => `doodla.pixelsPerMm.${screen.width}x${screen.height}@${devicePixelRatio}`;

/** CSS pixels to a millimetre of this display, once a card was held to it. */
export function knownPixels(): number | undefined {
  const kept = Number(localStorage.getItem(key()));
  return kept > 0 ? kept : undefined;
}

export function keepPixels(pixelsPerMm: number): void {
  localStorage.setItem(key(), String(pixelsPerMm));
}

/** Shows the page as large as it is on paper. Returns whether it is known how large that is. */
export function showTrueSize(stage: Pick<Stage, 'view' | 'zoom'>): boolean {
  const pixels = knownPixels();
  if (pixels !== undefined) stage.zoom(trueScale(pixels) / stage.view.get().scale);
  return pixels !== undefined;
}
