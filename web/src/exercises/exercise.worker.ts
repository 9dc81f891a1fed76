import type { ExerciseMark, ExerciseOrder, ExerciseProblemCode } from '@doodla/core/exercises';
import { ExerciseProblem, makeExercise } from '@doodla/core/exercises';
import { expose } from 'comlink';

/** What came of an order: marks, or why there are none. */
export type MadeExercise =
  | { marks: ExerciseMark[] }
  | { problem: ExerciseProblemCode; values: Readonly<Record<string, string | number>> };

const worker = {
  make(order: ExerciseOrder): MadeExercise {
    try {
      return { marks: makeExercise(order) };
    } catch (error) {
      if (error instanceof ExerciseProblem) return { problem: error.code, values: error.values };
      throw error;
    }
  },
};

export type ExerciseWorker = typeof worker;

expose(worker);
