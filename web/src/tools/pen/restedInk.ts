import type { MarkOf } from '@doodla/core';
import type { NeatDesk, ShapeReader } from '../../desk/neaten';
import { readInk, shapeOf, takeShape } from '../../desk/neaten';

/** What ink has become while the hand rests. */
export interface RestedInk {
  /** As it is shown. */
  readonly mark: MarkOf<'path' | 'shape'>;
  /** Puts it in the place of the ink, once that is on its page. */
  take(): void;
}

/** Of a bent line that has more corners no line is made: it may be writing. */
const MOST_CORNERS = 6;

/** What a stroke means whose end is held still: a shape, a straight line that goes on with the hand, or nothing but itself. */
export async function restedInk(
  desk: NeatDesk,
  ink: MarkOf<'stroke'>,
  read?: ShapeReader,
): Promise<RestedInk | 'straight' | undefined> {
  const readings = await readInk(ink.points, read);
  const [best] = readings;
  if (
    !best ||
    (best.body.kind === 'path' && best.body.points.length > 2 * MOST_CORNERS && best.kind === 'polyline')
  )
    return undefined;
  if (best.kind === 'line') return 'straight';
  const mark = shapeOf(desk, [ink], best, []);
  if (!mark || !desk.target.allows([{ do: 'add', mark }])) return undefined;
  return { mark, take: () => takeShape(desk, ink.id, readings) };
}
