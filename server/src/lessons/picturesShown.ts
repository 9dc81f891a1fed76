import type { Mark, Page } from '@doodla/core';

/** Ids of the pictures that a page and marks on it show. */
export function picturesOf(page: Pick<Page, 'surface'> | undefined, marks: readonly Mark[]): Set<string> {
  const ids = marks.flatMap((mark) => (mark.kind === 'picture' ? [mark.material] : []));
  const surface = page?.surface;
  if (surface?.kind === 'picture') ids.push(surface.material);
  if (surface?.kind === 'view') ids.push(...surface.pictures.map(({ material }) => material));
  return new Set(ids);
}

/** The same surface with pictures, documents and the like by other ids. */
export function withMaterials(
  surface: Page['surface'],
  renamed: ReadonlyMap<string, string>,
): Page['surface'] {
  const nameOf = (material: string) => renamed.get(material) ?? material;
  if ('material' in surface) return { ...surface, material: nameOf(surface.material) };
  if (surface.kind !== 'view') return surface;
  const pictures = surface.pictures.map((each) => ({ ...each, material: nameOf(each.material) }));
  return { ...surface, pictures };
}
