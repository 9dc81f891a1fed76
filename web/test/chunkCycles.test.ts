import { describe, expect, it } from 'vitest';
import { circleIn } from '../chunkCycles';

describe('files of the program', () => {
  it('may be imported by several others', () => {
    const imports = new Map([
      ['page', ['tools', 'core']],
      ['tools', ['core', 'icons']],
      ['core', ['icons']],
      ['icons', []],
    ]);
    expect(circleIn(imports)).toBeUndefined();
  });

  it('are found where they import each other in a circle', () => {
    const imports = new Map([
      ['page', ['icons', 'client']],
      ['icons', []],
      ['client', ['core']],
      ['core', ['tree']],
      ['tree', ['client']],
    ]);
    expect(circleIn(imports)).toEqual(['client', 'core', 'tree', 'client']);
  });
});
