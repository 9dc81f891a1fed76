import type { Tool } from '../tool';

export const select: Tool = {
  name: 'Select',
  key: 'V',
  group: 'Arrange',
  needs: 'writing',
  cursor: 'default',
  kept: {},
};
