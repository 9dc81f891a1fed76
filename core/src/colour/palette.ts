import { contrast } from './contrast.js';

/**
 * Mark colours to start from: the eight of Okabe and Ito, "Color Universal Design" (2008), which
 * stay apart for colour-blind viewers, and white.
 */
export const PALETTE = [
  { name: 'black', hex: '#000000' },
  { name: 'blue', hex: '#0072b2' },
  { name: 'vermilion', hex: '#d55e00' },
  { name: 'green', hex: '#009e73' },
  { name: 'orange', hex: '#e69f00' },
  { name: 'sky', hex: '#56b4e9' },
  { name: 'purple', hex: '#cc79a7' },
  { name: 'yellow', hex: '#f0e442' },
  { name: 'white', hex: '#ffffff' },
] as const;

const STUDENT_LIGHTNESS = [0.42, 0.56, 0.34];

/**
 * The colour of the n-th student of a sitting (n from 0). Hues step by the golden angle, so that
 * neighbours in the list differ most, and each round of hues has another lightness; never the
 * teacher's black. Readable on paper: contrast with white at least 3 (WCAG 2.2, 1.4.11).
 */
export function studentColour(n: number): string {
  const hue = (205 + n * 137.508) % 360;
  let lightness = STUDENT_LIGHTNESS[Math.floor(n / 12) % STUDENT_LIGHTNESS.length]!;
  let colour = hslToHex(hue, 0.72, lightness);
  while (contrast(colour, '#ffffff') < 3) {
    lightness -= 0.03;
    colour = hslToHex(hue, 0.72, lightness);
  }
  return colour;
}

/** CSS Color 4 §7, hue in degrees, saturation and lightness 0 to 1. */
export function hslToHex(hue: number, saturation: number, lightness: number): string {
  const channel = (n: number) => {
    const k = (n + hue / 30) % 12;
    const a = saturation * Math.min(lightness, 1 - lightness);
    const value = lightness - a * Math.max(-1, Math.min(k - 3, 9 - k, 1));
    return Math.round(value * 255)
      .toString(16)
      .padStart(2, '0');
  };
  return `#${channel(0)}${channel(8)}${channel(4)}`;
}
