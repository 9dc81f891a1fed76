import { converter, wcagContrast, wcagLuminance } from 'culori';
import { describe, expect, it } from 'vitest';
import { contrast, hslToHex, luminance, PALETTE, parseHex, studentColour } from '../src/index.js';

describe('contrast', () => {
  // WCAG 2.2, "contrast ratio": black on white is 21, a colour on itself 1.
  it('reaches the ends that WCAG 2.2 names', () => {
    expect(contrast('#000000', '#ffffff')).toBeCloseTo(21, 10);
    expect(contrast('#777777', '#777777')).toBe(1);
  });

  it.each(['#000000', '#ffffff', '#0072b2', '#d55e00', '#f0e442', '#03a9f4', '#0b0b0b'])(
    'agrees with the culori package about %s',
    (colour) => {
      expect(luminance(colour)).toBeCloseTo(wcagLuminance(colour), 3);
      expect(contrast(colour, '#faf5e8')).toBeCloseTo(wcagContrast(colour, '#faf5e8'), 2);
    },
  );

  it('refuses what is not a colour', () => {
    expect(() => parseHex('red')).toThrow(RangeError);
    expect(() => parseHex('#ABC')).toThrow(RangeError);
  });
});

describe('palette', () => {
  // Okabe and Ito 2008, "Color Universal Design", table of the colour set, RGB in 0–255.
  const published = [
    [0, 0, 0],
    [230, 159, 0],
    [86, 180, 233],
    [0, 158, 115],
    [240, 228, 66],
    [0, 114, 178],
    [213, 94, 0],
    [204, 121, 167],
  ];
  it('is the published set and white', () => {
    const ours = PALETTE.map(({ hex }) =>
      parseHex(hex)
        .map((part) => Math.round(part * 255))
        .join(),
    );
    expect(new Set(ours)).toEqual(new Set([...published.map((rgb) => rgb.join()), '255,255,255']));
  });
});

describe('student colours', () => {
  const class30 = Array.from({ length: 30 }, (_, n) => studentColour(n));

  it('are all different, none black, and visible on paper (WCAG 2.2, 1.4.11: 3 to 1)', () => {
    expect(new Set(class30).size).toBe(30);
    for (const colour of class30) expect(contrast(colour, '#ffffff')).toBeGreaterThanOrEqual(3);
    expect(class30).not.toContain('#000000');
  });

  it('come from a conversion that agrees with the culori package', () => {
    const toRgb = converter('rgb');
    for (const [h, s, l] of [
      [205, 0.72, 0.42],
      [0, 1, 0.5],
      [359.5, 0.3, 0.9],
    ] as const) {
      const reference = toRgb({ mode: 'hsl', h, s, l });
      const ours = parseHex(hslToHex(h, s, l));
      [reference.r, reference.g, reference.b].forEach((part, i) => expect(ours[i]).toBeCloseTo(part, 2));
    }
  });
});
