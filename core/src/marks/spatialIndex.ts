import RBush from 'rbush';
import type { Rect } from '../geometry/rect.js';
import { byOrder } from '../pages/page.js';
import { markBounds } from './bounds.js';
import type { Mark } from './mark.js';

interface Entry {
  minX: number;
  minY: number;
  maxX: number;
  maxY: number;
  mark: Mark;
}

/** The marks of one page, found by place (an R-tree). */
export class SpatialIndex {
  private readonly tree = new RBush<Entry>();
  private readonly entries = new Map<string, Entry>();
  /** All marks in the order in which they are drawn; undefined where it has to be found anew. */
  private drawn: readonly Mark[] | undefined;

  constructor(marks: Iterable<Mark> = []) {
    const entries = [...marks].map(entryOf);
    this.tree.load(entries);
    for (const entry of entries) this.entries.set(entry.mark.id, entry);
  }

  get size(): number {
    return this.entries.size;
  }

  /** Puts a mark in, or its new state in the place of the old. Returns what is now stale on screen. */
  set(mark: Mark): Rect[] {
    const stale = this.delete(mark.id);
    const entry = entryOf(mark);
    this.entries.set(mark.id, entry);
    this.tree.insert(entry);
    this.drawn = undefined;
    return [...stale, rectOf(entry)];
  }

  /** Takes a mark out. Returns what is now stale on screen. */
  delete(id: string): Rect[] {
    const entry = this.entries.get(id);
    if (!entry) return [];
    this.entries.delete(id);
    this.tree.remove(entry);
    this.drawn = undefined;
    return [rectOf(entry)];
  }

  get(id: string): Mark | undefined {
    return this.entries.get(id)?.mark;
  }

  /** Marks whose bounds touch the rectangle, lowest first. */
  within(rect: Rect): Mark[] {
    return this.tree
      .search({ minX: rect.x, minY: rect.y, maxX: rect.x + rect.width, maxY: rect.y + rect.height })
      .map((entry) => entry.mark)
      .sort(byOrder);
  }

  /** The smallest rectangle round all marks; undefined where there are none. */
  get bounds(): Rect | undefined {
    if (this.size === 0) return undefined;
    const root = this.tree.toJSON() as Omit<Entry, 'mark'>;
    return rectOf(root);
  }

  /** All marks, lowest first. */
  all(): readonly Mark[] {
    this.drawn ??= [...this.entries.values()].map((entry) => entry.mark).sort(byOrder);
    return this.drawn;
  }
}

function entryOf(mark: Mark): Entry {
  const { x, y, width, height } = markBounds(mark);
  return { minX: x, minY: y, maxX: x + width, maxY: y + height, mark };
}

function rectOf(entry: Omit<Entry, 'mark'>): Rect {
  return { x: entry.minX, y: entry.minY, width: entry.maxX - entry.minX, height: entry.maxY - entry.minY };
}
