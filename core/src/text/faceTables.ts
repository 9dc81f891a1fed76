import type { Face, FaceTable } from './font.js';
import { isFaceKnown, registerFace } from './font.js';

type Module = Promise<{ default: FaceTable }>;

const json = { with: { type: 'json' } } as const;

/** Tables that are fetched when a face is first used. */
const TABLES: Record<Exclude<Face, 'andika'>, () => Module> = {
  'andika-bold': () => import('./metrics/andika-bold.json', json),
  'andika-italic': () => import('./metrics/andika-italic.json', json),
  'andika-bold-italic': () => import('./metrics/andika-bold-italic.json', json),
  serif: () => import('./metrics/serif.json', json),
  'serif-bold': () => import('./metrics/serif-bold.json', json),
  'serif-italic': () => import('./metrics/serif-italic.json', json),
  'serif-bold-italic': () => import('./metrics/serif-bold-italic.json', json),
  mono: () => import('./metrics/mono.json', json),
  'mono-bold': () => import('./metrics/mono-bold.json', json),
  'mono-italic': () => import('./metrics/mono-italic.json', json),
  'mono-bold-italic': () => import('./metrics/mono-bold-italic.json', json),
  hand: () => import('./metrics/hand.json', json),
};

/** Makes a face known. Returns whether it was unknown before. */
export async function loadFace(face: Face): Promise<boolean> {
  if (face === 'andika' || isFaceKnown(face)) return false;
  registerFace(face, (await TABLES[face]()).default);
  return true;
}
