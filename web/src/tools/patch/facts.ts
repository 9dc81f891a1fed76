import type { Tool } from '../tool';
import { t } from '../../words';

export interface PatchKept {
  patchColour: string;
}

export const patch: Tool<PatchKept> = {
  name: t('tools.patch'),
  does: t('tools.patchOverAnAnswer'),
  key: '6',
  group: 'Focus',
  needs: 'writing',
  least: 'everything',
  kept: { patchColour: '#5b6b8c' },
  colour: {
    of: ({ patchColour }) => patchColour,
    with: (_, patchColour) => ({ patchColour }),
  },
};
