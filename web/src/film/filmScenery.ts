import type { Mark, Page } from '@doodla/core';
import { pageExtent } from '@doodla/core';
import { facesOn, picturesOn } from '@doodla/core/formats';
import { blankCanvas, contextOf } from '../canvas/blankCanvas';
import { needFace } from '../canvas/faces';
import type { Scenery } from '../replay/scenery';
import type { FilmHost, FilmPlan } from './filmPlan';

/** The scenery of a film; what the worker cannot draw the page draws for it. */
export function filmScenery({ pages }: FilmPlan, host: FilmHost): Scenery {
  const pictures = new Map<string, ImageBitmap>();
  const fetchPicture = async (material: string) => {
    const bitmap = pictures.has(material) ? undefined : await host.picture(material);
    if (bitmap) pictures.set(material, bitmap);
  };
  return {
    pictures,
    pageNow: (id) => pages.get(id)?.page,
    extentOf: (page) => pageExtent(page, pages.get(page.id)?.bounds ?? []),
    prepared: (page) => pages.get(page)?.prepared ?? [],
    async surface(page, width) {
      const drawn = await host.surface(page, width);
      const canvas = blankCanvas(drawn.width, drawn.height);
      contextOf(canvas).drawImage(drawn, 0, 0);
      drawn.close();
      return canvas;
    },
    async loadPictures(page: Page, marks: readonly Mark[]) {
      const handed = { page, marks: [...marks] };
      for (const face of await facesOn(handed)) await needFace(face);
      await Promise.all([...picturesOn(handed)].map(fetchPicture));
    },
  };
}
