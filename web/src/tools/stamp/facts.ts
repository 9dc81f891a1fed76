import type { StampName } from '@doodla/core';
import type { Tool } from '../tool';
import { t } from '../../words';

export interface StampKept {
  stamp: StampName;
  stampColour: string;
  /** One of the teacher's own stamps; null for the ready-made one. */
  ownStamp: string | null;
}

export const stamp: Tool<StampKept> = {
  name: t('tools.stamp'),
  key: 'M',
  group: 'Place',
  needs: 'writing',
  least: 'everything',
  kept: { stamp: 'tick', stampColour: '#009e73', ownStamp: null },
  colour: {
    of: ({ stampColour }) => stampColour,
    with: (_, stampColour) => ({ stampColour }),
  },
};
