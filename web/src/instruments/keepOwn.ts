import { areInstruments } from '@doodla/core/instruments';
import type { Room } from '../room/room';

/** Keeps one's own instruments in this tab, so that they lie where they did after it is loaded again. */
export function keepOwn({ ownInstruments, sitting, lesson, seat }: Room): () => void {
  const key = `doodla.instruments.${sitting ?? lesson}.${seat ?? ''}`;
  const kept: unknown = JSON.parse(sessionStorage.getItem(key) ?? '[]');
  if (ownInstruments.get().length === 0 && areInstruments(kept)) ownInstruments.set(kept);
  return ownInstruments.subscribe(() => sessionStorage.setItem(key, JSON.stringify(ownInstruments.get())));
}
