import type { Rect } from '../geometry/rect.js';
import { unionRect } from '../geometry/rect.js';
import type { Pane, Placement } from '../live/panes.js';
import { IN_PLACE, MAX_PANES } from '../live/panes.js';
import type { Warp } from './match.js';

/** Share of the smaller of two regions that they have in common where they are of one pane, and its share of the larger. */
const SAME = 0.5;
const ALIKE = 0.4;
/** Share of a pane that lies in what has moved where it has moved along. */
const INSIDE = 0.9;

/** The panes of a view after what lies in a region has moved; the one that has may be new. */
export function panesAfter(panes: readonly Pane[], region: Rect, warp: Warp): Pane[] {
  const moved = panes
    .filter((pane) => isSame(pane.region, region))
    .sort((a, b) => shared(b.region, region) - shared(a.region, region))[0];
  if (!moved && panes.length === MAX_PANES) return [...panes];
  const id = moved?.id ?? Math.max(0, ...panes.map((pane) => pane.id)) + 1;
  const own: Pane = {
    id,
    region: moved ? unionRect(moved.region, region) : region,
    place: warped(moved?.place ?? IN_PLACE, warp),
  };
  const others = panes
    .filter((pane) => pane.id !== id)
    .map((pane) =>
      shared(pane.region, region) >= INSIDE * area(pane.region)
        ? { ...pane, region: warpedRect(pane.region, warp), place: warped(pane.place, warp) }
        : pane,
    );
  return [...others, own].sort((a, b) => a.id - b.id);
}

function warped(place: Placement, { scale, dx, dy }: Warp): Placement {
  return { scale: scale * place.scale, x: scale * place.x + dx, y: scale * place.y + dy };
}

function warpedRect({ x, y, width, height }: Rect, { scale, dx, dy }: Warp): Rect {
  return { x: scale * x + dx, y: scale * y + dy, width: scale * width, height: scale * height };
}

function isSame(a: Rect, b: Rect): boolean {
  const [less, more] = [Math.min(area(a), area(b)), Math.max(area(a), area(b))];
  return shared(a, b) >= SAME * less && less >= ALIKE * more;
}

const area = ({ width, height }: Rect) => width * height;

function shared(a: Rect, b: Rect): number {
  const width = Math.min(a.x + a.width, b.x + b.width) - Math.max(a.x, b.x);
  const height = Math.min(a.y + a.height, b.y + b.height) - Math.max(a.y, b.y);
  return width > 0 && height > 0 ? width * height : 0;
}
