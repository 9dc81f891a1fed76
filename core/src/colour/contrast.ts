/** Red, green, blue, each 0 to 1. */
export type Rgb = readonly [number, number, number];

const HEX_COLOUR = /^#[0-9a-f]{6}$/;

export function isHexColour(value: unknown): value is string {
  return typeof value === 'string' && HEX_COLOUR.test(value);
}

/** Splits `#rrggbb`. Throws RangeError on anything else. */
export function parseHex(colour: string): Rgb {
  if (!isHexColour(colour)) throw new RangeError(`not a colour: ${String(colour)}`);
  const part = (at: number) => parseInt(colour.slice(at, at + 2), 16) / 255;
  return [part(1), part(3), part(5)];
}

/** Relative luminance of an sRGB colour, 0 (black) to 1 (white): WCAG 2.2, "relative luminance". */
export function luminance(colour: string): number {
  const [r, g, b] = parseHex(colour).map((c) =>
    c <= 0.04045 ? c / 12.92 : ((c + 0.055) / 1.055) ** 2.4,
  ) as [number, number, number];
  return 0.2126 * r + 0.7152 * g + 0.0722 * b;
}

/** Contrast ratio of two colours, 1 to 21: WCAG 2.2, "contrast ratio". */
export function contrast(a: string, b: string): number {
  const [light, dark] = [luminance(a), luminance(b)].sort((x, y) => y - x) as [number, number];
  return (light + 0.05) / (dark + 0.05);
}

/** A colour mixed with white; `part` of it is left, from 0 to 1. */
export function onWhite(colour: string, part: number): string {
  const mixed = parseHex(colour).map((channel) => Math.round(255 * (1 - (1 - channel) * part)));
  return `#${mixed.map((channel) => channel.toString(16).padStart(2, '0')).join('')}`;
}
