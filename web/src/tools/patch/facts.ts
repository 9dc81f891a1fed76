import type { Tool } from '../tool';

export interface PatchKept {
  patchColour: string;
}

export const patch: Tool<PatchKept> = {
  name: 'Patch',
  does: 'Patch over an answer',
  key: '6',
  group: 'Focus',
  needs: 'writing',
  kept: { patchColour: '#5b6b8c' },
  colour: {
    of: ({ patchColour }) => patchColour,
    with: (_, patchColour) => ({ patchColour }),
  },
};
