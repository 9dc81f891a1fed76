import type { Tool } from '../tool';

export const outline: Tool = {
  name: 'Free spotlight',
  key: '7',
  group: 'Focus',
  needs: 'class',
  kept: {},
};
