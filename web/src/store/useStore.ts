import type { Store } from '@doodla/core/client';
import { useSyncExternalStore } from 'react';

/** The value of a store, now and whenever it changes. */
export function useStore<T>(store: Store<T>): T {
  return useSyncExternalStore(store.subscribe, store.get);
}
