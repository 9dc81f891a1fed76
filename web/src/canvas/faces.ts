import type { Face } from '@doodla/core';
import { loadFace } from '@doodla/core';

/** Where fonts of this thread are kept; workers have no document, and none of its fonts. */
const fontsHere = () =>
  typeof document === 'undefined' ? (self as unknown as { fonts: FontFaceSet }).fonts : document.fonts;

const known = new Map<Face, Promise<boolean>>();

/** Fetches what a face needs, once. Returns whether text laid out before it came has to be laid out anew. */
export function needFace(face: Face): Promise<boolean> {
  let loading = known.get(face);
  if (face === 'andika' && typeof document !== 'undefined') return Promise.resolve(false);
  if (!loading) {
    loading = fetchFace(face);
    known.set(face, loading);
    loading.then(
      () => known.set(face, Promise.resolve(false)),
      () => known.delete(face),
    );
  }
  return loading;
}

async function fetchFace(face: Face): Promise<boolean> {
  const [fresh, { fontFiles }] = await Promise.all([loadFace(face), import('./fontFiles')]);
  const [family, ...cuts] = face.split('-');
  const name = family === 'andika' ? 'Andika' : `Doodla-${family}`;
  const descriptors = {
    weight: cuts.includes('bold') ? '700' : '400',
    style: cuts.includes('italic') ? 'italic' : 'normal',
  };
  const font = new FontFace(name, `url(${fontFiles[face]})`, descriptors);
  fontsHere().add(await font.load());
  return fresh;
}
