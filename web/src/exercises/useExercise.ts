import type { ExerciseOrder } from '@doodla/core/exercises';
import type { Remote } from 'comlink';
import { releaseProxy, wrap } from 'comlink';
import { useEffect, useState } from 'react';
import type { ExerciseWorker, MadeExercise } from './exercise.worker';

/** So long nothing is typed before an exercise is made, milliseconds. */
const REST_MS = 150;

/** An exercise as it is ordered, made by a worker; the one before until then. `onFailed` hears where the worker fails. */
export function useExercise(
  order: ExerciseOrder,
  onFailed: (error: Error) => void,
): MadeExercise | undefined {
  const [made, setMade] = useState<MadeExercise>();
  const [remote, setRemote] = useState<Remote<ExerciseWorker>>();
  useEffect(() => {
    const worker = new Worker(new URL('./exercise.worker.ts', import.meta.url), { type: 'module' });
    const wrapped = wrap<ExerciseWorker>(worker);
    setRemote(() => wrapped);
    return () => {
      wrapped[releaseProxy]();
      worker.terminate();
    };
  }, []);
  useEffect(() => {
    let isWanted = true;
    const timer = setTimeout(() => {
      remote?.make(order).then(
        (next) => isWanted && setMade(next),
        (error: Error) => isWanted && onFailed(error),
      );
    }, REST_MS);
    return () => {
      isWanted = false;
      clearTimeout(timer);
    };
  }, [order, remote, onFailed]);
  return made;
}
