import { outline } from '../../ink/outline.js';
import { textureLines } from '../../ink/texture.js';
import type { PaintItem, PaintOf } from '../../paint/items.js';
import type { InkStyle, StrokeMark } from './strokeMark.js';

/** How ink is drawn while it is not a mark yet, or is one. */
export function paintStroke(ink: Pick<StrokeMark, 'points' | 'style'>, finished = true): PaintItem[] {
  const { nature, colour, opacity, width } = ink.style;
  if (nature === 'pencil' || nature === 'chalk') {
    return textureLines(ink.points, nature, width).map(({ path, dash, share }) => ({
      kind: 'line',
      path,
      colour,
      width: width * share,
      dash,
      opacity: opacity * (nature === 'pencil' ? 0.6 : 0.85),
    }));
  }
  return [{ ...inkFill(ink.style), path: outline(ink, finished) }];
}

/** Whether ink of such a look is one filled outline. */
export function isFilledInk({ nature }: InkStyle): boolean {
  return nature !== 'pencil' && nature !== 'chalk';
}

/** How that outline is filled. */
export function inkFill({ colour, opacity, nature }: InkStyle): Omit<PaintOf<'fill'>, 'path'> {
  const blend = nature === 'highlighter' ? 'multiply' : 'normal';
  return { kind: 'fill', colour, opacity, blend, rule: 'nonzero' };
}
