import { Signal, Store } from '@doodla/core/client';

/** The folder of one's own shelf in which things are put; empty where it is none. */
export const openFolder = new Store('');

/** Tells that there are other things on the shelf than before. */
export const shelfChanged = new Signal();
