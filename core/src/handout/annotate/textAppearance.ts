import { parseHex } from '../../colour/contrast.js';
import type { TextStyle } from '../../marks/text/textMark.js';

/** Families as programs know them that lack the shipped fonts. */
const FAMILIES: Readonly<Record<TextStyle['font'], string>> = {
  andika: 'Andika,sans-serif',
  serif: "'Noto Serif',serif",
  mono: "'JetBrains Mono',monospace",
  hand: "'Patrick Hand',cursive",
};

/** The default appearance of typed text (ISO 32000-1 §12.7.3.3): what a program writes with that lacks the font. */
export function defaultAppearance({ size, colour }: TextStyle, scale: number): string {
  const parts = parseHex(colour).map((part) => Math.round(part * 1000) / 1000);
  return `/Helv ${points(size * scale)} Tf ${parts.join(' ')} rg`;
}

/** The default style of typed text (table 174, DS), by CSS. */
export function cssOf(
  { font, size, colour, bold, italic, underline, align }: TextStyle,
  scale: number,
): string {
  return [
    `font-family:${FAMILIES[font]}`,
    `font-size:${points(size * scale)}pt`,
    `font-weight:${bold ? 'bold' : 'normal'}`,
    `font-style:${italic ? 'italic' : 'normal'}`,
    `text-decoration:${underline ? 'underline' : 'none'}`,
    `text-align:${align}`,
    `color:${colour}`,
  ].join(';');
}

function points(value: number): number {
  return Math.round(value * 1000) / 1000;
}
