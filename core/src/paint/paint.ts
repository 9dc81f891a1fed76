import { outline } from '../ink/outline.js';
import type { FontId, Mark } from '../marks/mark.js';
import { layoutText } from '../text/layout.js';
import type { Path } from './path.js';

/** `multiply` is what makes a highlighter leave text readable (ISO 32000-1 §11.3.5.2, W3C Compositing §10.1). */
export type Blend = 'normal' | 'multiply';

/** What a renderer has to draw for a mark, in page units, in this order. */
export type PaintItem =
  | { kind: 'fill'; path: Path; colour: string; opacity: number; blend: Blend }
  | {
      kind: 'text';
      /** Left end of the baseline. */
      x: number;
      y: number;
      text: string;
      width: number;
      font: FontId;
      size: number;
      colour: string;
      /** The font lacks these characters: draw them with whatever has them, squeezed into `width`. */
      fallback: boolean;
    };

/** How a mark is drawn; canvas, PDF and pictures all draw exactly this. */
export function paintMark(mark: Mark): PaintItem[] {
  switch (mark.kind) {
    case 'stroke':
      return [
        {
          kind: 'fill',
          path: outline(mark),
          colour: mark.style.colour,
          opacity: mark.style.opacity,
          blend: mark.style.nature === 'highlighter' ? 'multiply' : 'normal',
        },
      ];
    case 'text': {
      const { font, size, colour } = mark.style;
      return layoutText(mark.text, font, size, mark.width).lines.flatMap((line) =>
        line.runs.map((run) => ({
          kind: 'text' as const,
          x: mark.x + run.x,
          y: mark.y + line.baseline,
          text: run.text,
          width: run.width,
          font,
          size,
          colour,
          fallback: run.fallback,
        })),
      );
    }
  }
}
