import type { Tool } from '../tool';
import { t } from '../../words';

export interface EraserKept {
  eraser: 'whole' | 'rubber';
  /** Radius of its tip, CSS pixels on screen. */
  eraserRadius: number;
}

export const eraser: Tool<EraserKept> = {
  name: t('tools.eraser'),
  key: 'E',
  group: 'Write',
  needs: 'writing',
  kept: { eraser: 'whole', eraserRadius: 10 },
};
