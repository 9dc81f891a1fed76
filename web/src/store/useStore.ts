import type { Store } from '@doodla/core/client';
import { useState, useSyncExternalStore } from 'react';

/** The value of a store, now and whenever it changes. */
export function useStore<T>(store: Store<T>): T {
  return useSyncExternalStore(store.subscribe, store.get);
}

/** The same for one that changes hundreds of times a second, as when a whole class writes: looked at once a frame. */
export function useStoreByFrame<T>(store: Store<T>): T {
  const [subscribe] = useState(() => byFrame(store));
  return useSyncExternalStore(subscribe, store.get);
}

function byFrame<T>(store: Store<T>) {
  return (listener: () => void) => {
    let frame = 0;
    const stop = store.subscribe(() => {
      frame ||= requestAnimationFrame(() => {
        frame = 0;
        listener();
      });
    });
    return () => {
      cancelAnimationFrame(frame);
      stop();
    };
  };
}
