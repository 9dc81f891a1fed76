import { describe, expect, it } from 'vitest';
import { pressureWithTilt, tiltFromUpright } from '../src/index.js';

describe('a tilted pen', () => {
  it('has the tilt of Pointer Events Level 3', () => {
    expect(tiltFromUpright(0, 0)).toBe(0);
    expect(tiltFromUpright(30, 0)).toBeCloseTo(30);
    expect(tiltFromUpright(0, -45)).toBeCloseTo(45);
    // Both at 45°: altitude is atan(1 / √2) = 35.26°, so 54.74° from upright.
    expect(tiltFromUpright(45, 45)).toBeCloseTo(54.74, 1);
    expect(tiltFromUpright(90, 0)).toBeGreaterThan(89);
  });

  it('draws broader with a pencil, chalk or marker, and not with a pen', () => {
    for (const nature of ['pencil', 'chalk', 'marker'] as const) {
      expect(pressureWithTilt(nature, 0.3, 20)).toBe(0.3);
      expect(pressureWithTilt(nature, 0.3, 60)).toBeGreaterThan(0.5);
      expect(pressureWithTilt(nature, 0.8, 85)).toBe(1);
    }
    expect(pressureWithTilt('pen', 0.3, 80)).toBe(0.3);
  });
});
