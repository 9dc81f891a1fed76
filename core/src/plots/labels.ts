import type { FormulaFonts } from '../formulas/fonts.js';
import { outlineBox } from '../formulas/placed.js';
import type { Typeset } from '../formulas/typeset.js';
import { typeset } from '../formulas/typeset.js';
import type { Rect } from '../geometry/rect.js';
import type { DrawingPart } from '../marks/plot/plotMark.js';

/** Of how many labels the outlines are remembered. */
const REMEMBERED = 500;

/** Typeset labels, remembered, since those of an axis come again and again. */
export class Labels {
  private readonly known = new Map<string, Typeset>();

  constructor(private readonly fonts: FormulaFonts) {}

  /** Sees to it that labels can be drawn. Throws a `FormulaError`, and what the source of fonts throws. */
  async prepare(all: Iterable<string>): Promise<void> {
    if (this.known.size > REMEMBERED) this.known.clear();
    for (const tex of all) if (!this.known.has(tex)) this.known.set(tex, await typeset(tex, this.fonts));
  }

  /** The box of a label whose letters have a size, from the left end of its base line. */
  box(tex: string, size: number): Rect {
    const box = outlineBox(this.known.get(tex)!) ?? { x: 0, y: 0, width: 0, height: 0 };
    return { x: box.x * size, y: box.y * size, width: box.width * size, height: box.height * size };
  }

  /** A label with the left end of its base line at x, y. */
  drawn(tex: string, size: number, x: number, y: number, colour: string): DrawingPart[] {
    const rings = this.known.get(tex)!.parts.flatMap((part) => part.rings);
    if (rings.length === 0) return [];
    const placed = rings.map((ring) => ring.map((value, i) => rounded((i % 2 ? y : x) + value * size)));
    return [{ rings: placed, colour, opacity: 1 }];
  }
}

/** Hundredths of a page unit are seen by nobody. */
export const rounded = (value: number): number => Math.round(value * 100) / 100;
