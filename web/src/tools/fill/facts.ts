import type { Tool } from '../tool';
import { t } from '../../words';

export interface FillKept {
  fillColour: string;
  /** Gaps in an outline up to this width are bridged, page units. */
  fillGap: number;
}

export const fill: Tool<FillKept> = {
  name: t('tools.pour'),
  does: t('tools.pourColour'),
  key: 'C',
  group: 'Place',
  needs: 'writing',
  least: 'everything',
  kept: { fillColour: '#56b4e9', fillGap: 8 },
  colour: {
    of: ({ fillColour }) => fillColour,
    with: (_, fillColour) => ({ fillColour }),
  },
};
