import { Store } from '../live/store';

/** Sizes of the interface's letters, against the browser's own. */
export const TYPE_SIZES = { usual: 1, large: 1.25, largest: 1.5 } as const;
export type TypeSize = keyof typeof TYPE_SIZES;

const KEY = 'doodla.typeSize';

/** How large letters are on this device, for people who see little. */
export const typeSize = new Store<TypeSize>(stored());
typeSize.subscribe(() => {
  localStorage.setItem(KEY, typeSize.get());
  applyTypeSize();
});

export function applyTypeSize(): void {
  document.documentElement.style.fontSize = `${TYPE_SIZES[typeSize.get()] * 100}%`;
}

function stored(): TypeSize {
  const value = localStorage.getItem(KEY);
  return value !== null && value in TYPE_SIZES ? (value as TypeSize) : 'usual';
}
