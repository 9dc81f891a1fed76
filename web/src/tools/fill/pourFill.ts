import { rectContains } from '@doodla/core';
import { pourChanges } from '@doodla/core/fill';
import type { Mark, Rect } from '@doodla/core';
import { transfer, wrap } from 'comlink';
import type { Remote } from 'comlink';
import { drawMark } from '../../canvas/markPainter';
import type { Desk } from '../../desk/desk';
import type { PourWorker } from './pour.worker';
import type { Surfaces } from '../../canvas/surfaces';
import { t } from '../../words';

/** What pouring needs to know of a page. */
export type PourDesk = Pick<
  Desk,
  | 'extentOf'
  | 'layers'
  | 'mayTouch'
  | 'newMark'
  | 'tellProblem'
  | 'page'
  | 'penCase'
  | 'pictures'
  | 'target'
  | 'targetMarks'
> & { surfaces: Pick<Surfaces, 'of'> };

/** Most pixels that are looked at. */
const MAX_PIXELS = 3_000_000;
/** How far a colour may differ from the one poured on. */
const TOLERANCE = 48;
const FILL_OPACITY = 0.55;

let worker: Remote<PourWorker> | undefined;

/** Pours colour into the area round a point of the page, and puts it where it belongs among the marks. */
export async function pourFill(desk: PourDesk, x: number, y: number, gap: number): Promise<void> {
  const { page } = desk;
  const common = desk.newMark();
  if (!page || !common) return;
  const extent = desk.extentOf(page);
  if (!rectContains(extent, x, y)) return;
  const scale = Math.min(1, Math.sqrt(MAX_PIXELS / (extent.width * extent.height)));
  const raster = rasterOf(desk, extent, scale);
  worker ??= wrap<PourWorker>(new Worker(new URL('./pour.worker.ts', import.meta.url), { type: 'module' }));
  const options = {
    x: (x - extent.x) * scale,
    y: (y - extent.y) * scale,
    tolerance: TOLERANCE,
    gap: gap * scale,
  };
  const poured = await worker.pour(transfer(raster, [raster.data.buffer]), options);
  if ('failed' in poured) {
    return desk.tellProblem(poured.failed === 'open' ? t('tools.areaIsOpen') : t('tools.thereIsNoRoomHere'));
  }
  const rings = poured.rings.map((ring) =>
    ring.map((value, i) => Math.round((value / scale + (i % 2 === 0 ? extent.x : extent.y)) * 100) / 100),
  );
  const style = { colour: desk.penCase.get().fillColour, opacity: FILL_OPACITY };
  const marks = desk.targetMarks?.all() ?? [];
  const mayTouch = (mark: Mark) => desk.mayTouch(mark);
  desk.target.perform(pourChanges({ ...common, kind: 'fill', rings, style }, [x, y], marks, mayTouch));
}

/** The page with everything on it, as pixels. */
function rasterOf(desk: PourDesk, extent: Rect, scale: number) {
  const page = desk.page!;
  const [width, height] = [Math.ceil(extent.width * scale), Math.ceil(extent.height * scale)];
  const canvas = document.createElement('canvas');
  [canvas.width, canvas.height] = [width, height];
  const ctx = canvas.getContext('2d', { willReadFrequently: true })!;
  ctx.fillStyle = '#ffffff';
  ctx.fillRect(0, 0, width, height);
  ctx.setTransform(scale, 0, 0, scale, -extent.x * scale, -extent.y * scale);
  desk.surfaces.of(page).draw(ctx, extent);
  for (const layer of desk.layers) {
    for (const mark of layer.on(page.id).all())
      // What was poured before is no outline: it is poured over.
      if (mark.kind !== 'fill') drawMark(ctx, mark, desk.pictures);
  }
  const { data } = ctx.getImageData(0, 0, width, height);
  return { width, height, data };
}
