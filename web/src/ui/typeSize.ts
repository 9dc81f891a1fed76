import { Store } from '@doodla/core/client';

/** Sizes of the interface's letters, against the browser's own. */
export const TYPE_SIZES = { usual: 1, large: 1.25, largest: 1.5 } as const;
export type TypeSize = keyof typeof TYPE_SIZES;

/** How large buttons and letters are for the hand: 44 px at a desk, 56 px on a display. */
export const TARGET_SIZES = { desk: 1, display: 56 / 44 } as const;
export type TargetSize = keyof typeof TARGET_SIZES;

/** A touch screen at least this wide is taken for a display; CSS pixels. */
const DISPLAY_WIDTH = 1600;

/** How large letters are on this device, for people who see little. */
export const typeSize = kept<TypeSize>('doodla.typeSize', TYPE_SIZES, 'usual');

/** Whether this is a desk or a display; by pointer and screen until somebody chooses. */
export const targetSize = kept<TargetSize>('doodla.targetSize', TARGET_SIZES, likelyTarget());

/** How much larger than usual the interface is, all told. */
export function interfaceScale(): number {
  return TYPE_SIZES[typeSize.get()] * TARGET_SIZES[targetSize.get()];
}

/** Everything round the page is measured in the root's letters. */
export function applyTypeSize(): void {
  document.documentElement.style.fontSize = `${interfaceScale() * 100}%`;
}

function likelyTarget(): TargetSize {
  return matchMedia('(pointer: coarse)').matches && screen.width >= DISPLAY_WIDTH ? 'display' : 'desk';
}

function kept<T extends string>(key: string, sizes: Record<T, number>, otherwise: T): Store<T> {
  const value = localStorage.getItem(key);
  const store = new Store<T>(value !== null && value in sizes ? (value as T) : otherwise);
  store.subscribe(() => {
    localStorage.setItem(key, store.get());
    applyTypeSize();
  });
  return store;
}
