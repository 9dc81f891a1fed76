import type { Face } from '@doodla/core';
import { loadFace } from '@doodla/core';

const known = new Map<Face, Promise<boolean>>();

/**
 * Fetches what a face needs, once. Returns whether text laid out before it came has to be laid out anew. In the place of what the web
 * application does: a page's policy may forbid fonts by address, but not letters that are given as they are.
 */
export function needFace(face: Face): Promise<boolean> {
  const loading = known.get(face) ?? fetchFace(face);
  known.set(face, loading);
  loading.then(
    () => known.set(face, Promise.resolve(false)),
    () => known.delete(face),
  );
  return loading;
}

/** Fetches the letters of the interface and of plain text. */
export async function needUsualFaces(): Promise<void> {
  await Promise.all([
    addFont('Andika', 'andika', {}),
    addFont('Doodla Sans', 'interface', {}),
    addFont('Doodla Sans', 'interface-bold', { weight: '700' }),
  ]);
}

async function fetchFace(face: Face): Promise<boolean> {
  const [family, ...cuts] = face.split('-');
  const [fresh] = await Promise.all([
    loadFace(face),
    addFont(family === 'andika' ? 'Andika' : `Doodla-${family}`, face, {
      weight: cuts.includes('bold') ? '700' : '400',
      style: cuts.includes('italic') ? 'italic' : 'normal',
    }),
  ]);
  return fresh;
}

async function addFont(name: string, file: string, descriptors: FontFaceDescriptors): Promise<void> {
  const response = await fetch(chrome.runtime.getURL(`fonts/${file}`));
  const font = new FontFace(name, await response.arrayBuffer(), descriptors);
  document.fonts.add(await font.load());
}
