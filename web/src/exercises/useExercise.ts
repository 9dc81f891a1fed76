import type { Remote } from 'comlink';
import { releaseProxy, wrap } from 'comlink';
import { useEffect, useState } from 'react';
import { t } from '../words';
import type { ExerciseWorker, MadeExercise, SentOrder } from './exercise.worker';

/** So long nothing is typed before an exercise is made, milliseconds. */
const REST_MS = 150;

/** An exercise as a worker has made it last, and whether it is as it is ordered now. `onFailed` hears where the worker fails. */
export function useExercise(
  order: SentOrder,
  onFailed: (error: Error) => void,
): { made?: MadeExercise; isCurrent: boolean } {
  const [last, setLast] = useState<{ of: SentOrder; made: MadeExercise }>();
  const [remote, setRemote] = useState<Remote<ExerciseWorker>>();
  useEffect(() => {
    const worker = new Worker(new URL('./exercise.worker.ts', import.meta.url), { type: 'module' });
    const wrapped = wrap<ExerciseWorker>(worker);
    worker.addEventListener('error', () => onFailed(new Error(t('exercises.notMade'))));
    setRemote(() => wrapped);
    return () => {
      wrapped[releaseProxy]();
      worker.terminate();
    };
  }, [onFailed]);
  useEffect(() => {
    let isWanted = true;
    const timer = setTimeout(() => {
      remote?.make(order).then(
        (made) => isWanted && setLast({ of: order, made }),
        (error: Error) => isWanted && onFailed(error),
      );
    }, REST_MS);
    return () => {
      isWanted = false;
      clearTimeout(timer);
    };
  }, [order, remote, onFailed]);
  return { ...(last && { made: last.made }), isCurrent: last?.of === order };
}
