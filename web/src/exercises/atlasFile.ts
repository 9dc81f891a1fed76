import type { Atlas, MapView } from '@doodla/core/maps';
import worldUrl from 'world-atlas/countries-110m.json?url';
import nearUrl from 'world-atlas/countries-50m.json?url';

/** The outlines of countries could not be fetched. */
export class AtlasGone extends Error {
  override name = 'AtlasGone';
}

const fetched = new Map<string, Promise<Atlas>>();

/** The outlines that a map is drawn with: coarse ones for the world, finer ones for a part of it. Throws AtlasGone. */
export async function atlasFor(view: MapView): Promise<Atlas> {
  const url = view === 'world' ? worldUrl : nearUrl;
  const atlas = fetched.get(url) ?? fetchAtlas(url);
  fetched.set(url, atlas);
  try {
    return await atlas;
  } catch (error) {
    // It is asked for again the next time.
    fetched.delete(url);
    throw new AtlasGone(url, { cause: error });
  }
}

async function fetchAtlas(url: string): Promise<Atlas> {
  const response = await fetch(url);
  if (!response.ok) throw new AtlasGone(url);
  return (await response.json()) as Atlas;
}
