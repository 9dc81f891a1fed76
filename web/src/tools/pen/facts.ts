import type { InkStyle, Nature } from '@doodla/core';
import type { Tool } from '../tool';
import { t } from '../../words';

export type PenNature = Exclude<Nature, 'highlighter'>;
export type PenStyle = InkStyle & { nature: PenNature };

export interface PenKept {
  pen: PenStyle;
  /** How much a shaking hand is steadied, 0 to 0.9. */
  steadying: number;
  /** Whether drawings become the shapes that they mean. */
  neat: boolean;
  /** What a finger does once a pen has been used. */
  finger: 'write' | 'move' | 'nothing';
  /** The pen of whoever writes on the half away from the tools; null where all write with the same. */
  otherHand: InkStyle | null;
}

export const pen: Tool<PenKept> = {
  name: t('tools.pen'),
  key: 'P',
  group: 'Write',
  needs: 'writing',
  kept: {
    pen: { nature: 'pen', colour: '#000000', width: 4, opacity: 1 },
    steadying: 0.35,
    neat: false,
    finger: 'move',
    otherHand: null,
  },
  colour: {
    of: (kept) => kept.pen.colour,
    with: (kept, colour) => ({ pen: { ...kept.pen, colour } }),
  },
  inOneColour: (kept, colour) => ({
    pen: { ...kept.pen, colour },
    otherHand: kept.otherHand && { ...kept.otherHand, colour },
  }),
};
