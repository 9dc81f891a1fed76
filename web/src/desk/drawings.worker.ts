import type { LineDrawing } from '@doodla/core/drawings';
import { DrawingMatcher } from '@doodla/core/drawings';
import { expose } from 'comlink';
import { fetchDrawings } from './lineDrawings';
import { once } from './once';

const known = once(async () => {
  const drawings = await fetchDrawings();
  return {
    drawings: new Map(drawings.map((each) => [each.id, each])),
    matcher: new DrawingMatcher(drawings),
  };
});

const worker = {
  /** The drawings that ink is likest to, at most `most`, the best first. Throws where they cannot be fetched. */
  async likest(strokes: readonly (readonly number[])[], most: number): Promise<LineDrawing[]> {
    const { drawings, matcher } = await known();
    return matcher.best(strokes, most).map(({ id }) => drawings.get(id)!);
  },
};

export type DrawingsWorker = typeof worker;

expose(worker);
