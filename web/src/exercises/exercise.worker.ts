import type { ExerciseMark, ExerciseOrder, ExerciseProblemCode } from '@doodla/core/exercises';
import { ExerciseProblem, makeExercise, MAPPED } from '@doodla/core/exercises';
import type { MapView } from '@doodla/core/maps';
import { expose } from 'comlink';
import { AtlasGone, atlasFor } from './atlasFile';

/** Why nothing was made. */
export type NotMadeCode = ExerciseProblemCode | 'no-atlas';

/** What came of an order: marks, or why there are none. */
export type MadeExercise =
  { marks: ExerciseMark[] } | { problem: NotMadeCode; values: Readonly<Record<string, string | number>> };

/** An order as the sheet gives it: a map is fetched here. */
export type SentOrder = Omit<ExerciseOrder, 'map'> & { view: MapView };

const worker = {
  async make({ view, ...order }: SentOrder): Promise<MadeExercise> {
    try {
      if (!MAPPED.includes(order.kind)) return { marks: makeExercise(order) };
      return { marks: makeExercise({ ...order, map: { view, atlas: await atlasFor(view) } }) };
    } catch (error) {
      if (error instanceof AtlasGone) return { problem: 'no-atlas', values: {} };
      if (error instanceof ExerciseProblem) return { problem: error.code, values: error.values };
      throw error;
    }
  },
};

export type ExerciseWorker = typeof worker;

expose(worker);
