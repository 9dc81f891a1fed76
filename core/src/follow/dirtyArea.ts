import type { Rect } from '../geometry/rect.js';
import { unionRect } from '../geometry/rect.js';
import type { Frame } from './frame.js';
import { TILE, tileDifference } from './tiles.js';

/** Mean difference of luma from which a tile has to be sent anew. */
const VISIBLE = 0.15;

/** The part of the screen that has changed. */
export class DirtyArea {
  rect: Rect | undefined;
  /** Changed part of the whole, 0 to 1, by tiles. */
  share = 0;

  static between(before: Frame, now: Frame): DirtyArea {
    const area = new DirtyArea();
    const columns = Math.ceil(now.width / TILE);
    const rows = Math.ceil(now.height / TILE);
    let count = 0;
    for (let row = 0; row < rows; row++) {
      for (let column = 0; column < columns; column++) {
        if (!hasChanged(before, now, column, row)) continue;
        count += 1;
        const [x, y] = [column * TILE, row * TILE];
        area.add({ x, y, width: Math.min(TILE, now.width - x), height: Math.min(TILE, now.height - y) });
      }
    }
    area.share = count / (columns * rows);
    return area;
  }

  add(rect: Rect): void {
    this.rect = this.rect ? unionRect(this.rect, rect) : rect;
  }

  clear(): void {
    this.rect = undefined;
  }
}

function hasChanged(before: Frame, now: Frame, column: number, row: number): boolean {
  const difference = tileDifference(now, before, column, row, 0, 0);
  if (Number.isFinite(difference)) return difference > VISIBLE;
  // A rest at the edge that is no whole tile is compared pixel by pixel.
  for (let y = row * TILE; y < Math.min(now.height, (row + 1) * TILE); y++) {
    for (let x = column * TILE; x < Math.min(now.width, (column + 1) * TILE); x++) {
      if (Math.abs(now.grey[y * now.width + x]! - before.grey[y * now.width + x]!) > 3) return true;
    }
  }
  return false;
}
