import { Store } from '@doodla/core/client';

const KEY = 'doodla.penTags';

/** Whether names ride beside pens on this device. */
export const penTags = new Store(localStorage.getItem(KEY) !== 'off');

export function switchPenTags(on: boolean): void {
  localStorage.setItem(KEY, on ? 'on' : 'off');
  penTags.set(on);
}
