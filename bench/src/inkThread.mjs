// A thread that works out ink, as the application has one beside the one that puts a handout together.
import { writeInk } from '@doodla/core/handout/ink';
import { once } from 'node:events';
import { isMainThread, parentPort, Worker } from 'node:worker_threads';

if (!isMainThread)
  parentPort.on('message', ({ n, packed }) => {
    const { bytes, ends } = writeInk(packed);
    parentPort.postMessage({ n, bytes, ends }, [bytes.buffer, ends.buffer]);
  });

/** Such a thread; `ink` is what a handout's sources have. */
export function startInkThread() {
  const thread = new Worker(new URL(import.meta.url));
  const waiting = new Map();
  let asked = 0;
  thread.on('message', ({ n, ...written }) => {
    waiting.get(n)(written);
    waiting.delete(n);
  });
  const ink = (packed) =>
    new Promise((resolve) => {
      waiting.set(++asked, resolve);
      thread.postMessage({ n: asked, packed }, [packed.buffer]);
    });
  return { ink, stop: () => Promise.all([once(thread, 'exit'), thread.terminate()]) };
}
