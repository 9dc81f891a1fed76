import type { Tool } from '../tool';

export const enlarge: Tool = {
  name: 'Enlarge',
  does: 'Fill the screen with a region',
  key: 'Z',
  group: 'Focus',
  needs: 'class',
  kept: {},
};
