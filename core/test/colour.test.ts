import type { Color } from 'culori';
import {
  differenceCiede2000,
  filterDeficiencyDeuter,
  filterDeficiencyProt,
  filterDeficiencyTrit,
  parse,
  wcagContrast,
  wcagLuminance,
} from 'culori';
import { describe, expect, it } from 'vitest';
import {
  contrast,
  luminance,
  PALETTE,
  parseHex,
  initialsOf,
  NAME_DASHES,
  seatLook,
  STUDENT_COLOURS,
} from '../src/index.js';

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

describe('the looks of students', () => {
  // Dichromacy as Brettel, Viénot & Mollon (1997) and Machado (2009) simulate it, in the culori package.
  const VIEWS = [
    (colour: Color) => colour,
    filterDeficiencyDeuter(1),
    filterDeficiencyProt(1),
    filterDeficiencyTrit(1),
  ];

  it('have colours that are visible on paper (WCAG 2.2, 1.4.11: 3 to 1), none the teacher’s black', () => {
    for (const colour of STUDENT_COLOURS) expect(contrast(colour, '#ffffff')).toBeGreaterThanOrEqual(3);
    expect(STUDENT_COLOURS).not.toContain('#000000');
  });

  it('have colours that stay apart for colour-blind viewers (CIEDE2000, as culori has it, at least 12)', () => {
    const difference = differenceCiede2000();
    for (const [i, a] of STUDENT_COLOURS.entries())
      for (const b of STUDENT_COLOURS.slice(i + 1))
        for (const seen of VIEWS) expect(difference(seen(parse(a)), seen(parse(b)))).toBeGreaterThan(12);
  });

  it('begin with four of Okabe and Ito’s set', () => {
    const published = PALETTE.map(({ hex }) => hex as string);
    for (const colour of STUDENT_COLOURS.slice(0, 4)) expect(published).toContain(colour);
  });

  it('differ for 64 students, neighbours in colour', () => {
    const looks = Array.from({ length: 64 }, (_, n) => seatLook(n));
    expect(new Set(looks.map(({ colour, dash }) => `${colour} ${dash}`)).size).toBe(64);
    expect(new Set(NAME_DASHES).size).toBe(NAME_DASHES.length);
    for (let n = 1; n < 64; n += 1) expect(looks[n]!.colour).not.toBe(looks[n - 1]!.colour);
    expect(seatLook(64)).toEqual(seatLook(0));
  });

  it.each([
    ['Wren', 'W'],
    ['Ada Fenn', 'AF'],
    ['  ida  de la Rue ', 'IR'],
    ['élodie', 'É'],
    ['𝒲ren', '𝒲'],
    ['', ''],
  ])('have initials: those of “%s” are %s', (name, initials) => expect(initialsOf(name)).toBe(initials));
});
