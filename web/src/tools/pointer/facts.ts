import type { Tool } from '../tool';

export const pointer: Tool = {
  name: 'Pointer',
  does: 'Point with a bright dot',
  key: 'D',
  group: 'Point',
  needs: 'pointing',
  cursor: 'none',
  kept: {},
};
