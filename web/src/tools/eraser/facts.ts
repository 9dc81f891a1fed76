import type { Tool } from '../tool';

export interface EraserKept {
  eraser: 'whole' | 'rubber';
  /** Radius of its tip, CSS pixels on screen. */
  eraserRadius: number;
}

export const eraser: Tool<EraserKept> = {
  name: 'Eraser',
  key: 'E',
  group: 'Write',
  needs: 'writing',
  kept: { eraser: 'whole', eraserRadius: 10 },
};
