import { stepsOf } from '../formats/pathData.js';
import type { Item } from './boxes.js';
import { fontsIn, layOut } from './boxes.js';
import type { Ring } from './curves.js';
import { ringsOf, straightRing } from './curves.js';
import type { FormulaFonts } from './fonts.js';
import { boxesOf } from './tree.js';

/** Outlines of one colour; undefined where the formula does not say which. */
export interface TypesetPart {
  rings: readonly Ring[];
  colour: string | undefined;
}

/** A formula as outlines, in em of its letters, x from its left, y down from its base line. */
export interface Typeset {
  parts: readonly TypesetPart[];
  width: number;
}

/**
 * Typesets a formula as KaTeX does, as outlines that need no font to be drawn. Throws a `FormulaError`, and what the source of
 * fonts throws.
 */
export async function typeset(tex: string, fonts: FormulaFonts): Promise<Typeset> {
  const tree = boxesOf(tex);
  await fonts.load(fontsIn(tree));
  const { width, items } = layOut(tree, (font, text) => fonts.advance(font, text));
  const parts = new Map<string | undefined, Ring[]>();
  for (const item of items) {
    const rings = drawn(item, fonts);
    parts.set(item.colour, [...(parts.get(item.colour) ?? []), ...rings]);
  }
  return { width, parts: [...parts].map(([colour, rings]) => ({ colour, rings })) };
}

function drawn(item: Item, fonts: FormulaFonts): Ring[] {
  const { x, y, size } = item;
  switch (item.is) {
    case 'signs':
      return ringsOf(fonts.outline(item.font, item.text)).map((ring) =>
        ring.map((value, i) => (i % 2 ? y : x) + value * size),
      );
    case 'bar':
      return [
        straightRing([
          [x, y - item.height],
          [x + item.width, y - item.height],
          [x + item.width, y],
          [x, y],
        ]),
      ];
    case 'drawing': {
      const { fit, shift, room, top } = item;
      const across = (value: number) => x + Math.min(room, Math.max(0, value * fit[0] + shift));
      return ringsOf(stepsOf(item.data)).map((ring) =>
        ring.map((value, i) => (i % 2 ? y + top + value * fit[1] : across(value))),
      );
    }
    case 'slash': {
      const { width, height, rises, breadth } = item;
      const [from, to] = rises ? [y, y - height] : [y - height, y];
      const length = Math.hypot(width, height) || 1;
      const [ox, oy] = [((from - to) / length) * (breadth / 2), (width / length) * (breadth / 2)];
      return [straightRing([[x + ox, from + oy], [x + width + ox, to + oy], [x + width - ox, to - oy], [x - ox, from - oy]])]; // prettier-ignore
    }
  }
}
