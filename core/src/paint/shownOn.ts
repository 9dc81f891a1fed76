import type { Mark } from '../marks/mark.js';
import { boundsOf } from '../marks/select.js';
import { pageExtent } from '../pages/extent.js';
import type { Page } from '../pages/page.js';
import { loadFace } from '../text/faceTables.js';
import type { Face } from '../text/font.js';
import { isFaceKnown } from '../text/font.js';
import type { PaintItem } from './items.js';
import { paintMark } from './paint.js';
import { paintSurface } from './paintSurface.js';

interface PageWithMarks {
  readonly page: Page;
  readonly marks: readonly Mark[];
}

/** Whether something else than Doodla draws what lies under the marks of a page. */
export function hasOriginal({ page }: Pick<PageWithMarks, 'page'>): boolean {
  return page.surface.kind === 'pdf' || page.surface.kind === 'web';
}

/** The pictures that a page shows, by their ids. */
export function picturesOn({ page, marks }: PageWithMarks): Set<string> {
  const items = [
    ...paintSurface(page, pageExtent(page, [boundsOf(marks)])),
    ...marks.filter(({ kind }) => kind === 'picture').flatMap(paintMark),
  ];
  return new Set(items.flatMap((item) => (item.kind === 'picture' ? [item.material] : [])));
}

/** The faces that the words on a page are written in; known afterwards, so that its marks can be drawn. */
export async function facesOn({ marks }: Pick<PageWithMarks, 'marks'>): Promise<Set<Face>> {
  await loadFaces(marks);
  const written = marks.filter(({ kind }) => kind !== 'stroke').flatMap(paintMark);
  return new Set(written.flatMap((item) => (item.kind === 'text' && !item.fallback ? [item.face] : [])));
}

/** Makes sure that all faces of the marks are laid out by their own widths. */
export async function loadFaces(marks: readonly Mark[]): Promise<void> {
  for (const mark of marks) if (mark.kind !== 'stroke') await paintedWhole(mark);
}

/** How all marks but strokes are drawn, their faces known. */
export async function paintedMarks(marks: readonly Mark[]): Promise<Map<Mark, PaintItem[]>> {
  const painted = new Map<Mark, PaintItem[]>();
  for (const mark of marks) if (mark.kind !== 'stroke') painted.set(mark, await paintedWhole(mark));
  return painted;
}

async function paintedWhole(mark: Mark): Promise<PaintItem[]> {
  const items = paintMark(mark);
  const unknown = items.flatMap((item) =>
    item.kind === 'text' && !isFaceKnown(item.face) ? [item.face] : [],
  );
  if (unknown.length === 0) return items;
  for (const face of unknown) await loadFace(face);
  return paintMark(mark);
}
