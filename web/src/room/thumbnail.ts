import type { Mark, Page } from '@doodla/core';
import { isExported, UNITS_PER_POINT } from '@doodla/core';
import type { PageDesk } from './pageDesk';
import { drawWebPage } from '../canvas/drawWebPage';
import { paintMarks } from '../canvas/paintMarks';
import { paintPaper } from '../canvas/paintPaper';

/** Draws a small picture of a page with its marks, or some of them, `width` device pixels wide. */
export async function drawThumbnail(
  canvas: HTMLCanvasElement,
  page: Page,
  desk: PageDesk,
  width: number,
  isDrawn: (mark: Mark) => boolean = () => true,
): Promise<void> {
  const marks = desk.layers
    .flatMap((layer) => layer.on(page.id).all())
    .filter((mark) => isExported(mark) && isDrawn(mark));
  await loadPictures(page, marks, desk);
  const picture = await drawSurface(page, desk, width);
  paintMarks(picture, desk.extentOf(page), marks, desk.pictures);
  canvas.width = picture.width;
  canvas.height = picture.height;
  canvas.getContext('2d')!.drawImage(picture, 0, 0);
}

/** Draws a page without marks, `width` device pixels wide. Its own pictures have to be here. */
export async function drawSurface(page: Page, desk: PageDesk, width: number): Promise<HTMLCanvasElement> {
  const extent = desk.extentOf(page);
  const scale = width / extent.width;
  const picture = document.createElement('canvas');
  picture.width = width;
  picture.height = Math.max(1, Math.round(extent.height * scale));
  if (page.surface.kind === 'web') {
    const drawn = await drawWebPage(await desk.room.webPages.html(page.surface.material), page, scale);
    picture.getContext('2d')!.drawImage(drawn, 0, 0);
  } else if (page.surface.kind === 'pdf') {
    const doc = await desk.surfaces.pdf(page.surface.material);
    const original = await doc.getPage(page.surface.index + 1);
    const viewport = original.getViewport({ scale: scale * UNITS_PER_POINT });
    await original.render({ canvas: picture, viewport }).promise;
  } else {
    await paintPaper(picture, page, extent, desk.pictures);
  }
  return picture;
}

/** Waits for the pictures on a page, which would be drawn as empty places else. */
export async function loadPictures(
  page: Page,
  marks: readonly Mark[],
  { pictures }: PageDesk,
): Promise<void> {
  const { surface } = page;
  const under =
    surface.kind === 'view'
      ? surface.pictures.map(({ material }) => material)
      : surface.kind === 'picture'
        ? [surface.material]
        : [];
  const placed = marks.flatMap((mark) => (mark.kind === 'picture' ? [mark.material] : []));
  await Promise.all([...under, ...placed].map((material) => pictures.load(material)));
}
