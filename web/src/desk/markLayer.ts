import type { Mark, Rect } from '@doodla/core';
import { SpatialIndex } from '@doodla/core';
import type { LogChange, LogClient } from '@doodla/core/client';

/** The marks of one log, by page, kept in step with the log. */
export class MarkLayer {
  private readonly pages = new Map<string, SpatialIndex>();

  constructor(readonly log: LogClient) {}

  on(page: string): SpatialIndex {
    let index = this.pages.get(page);
    if (!index) {
      index = new SpatialIndex([...this.log.state.marks.values()].filter((mark) => mark.page === page));
      this.pages.set(page, index);
    }
    return index;
  }

  /** Whether a mark of a page that is looked at is not known here yet. */
  isNew({ id, page }: Pick<Mark, 'id' | 'page'>): boolean {
    const index = this.pages.get(page);
    return index !== undefined && !index.get(id);
  }

  /** Takes changes of the log in. Returns what is stale by page; a page that has arrived is stale as a whole. */
  update({ marks, arrived }: LogChange): Map<string, Rect[]> {
    const stale = new Map<string, Rect[]>();
    if (arrived !== undefined) {
      this.pages.delete(arrived);
      return stale;
    }
    for (const id of marks) {
      const mark = this.log.state.marks.get(id);
      for (const [page, index] of this.pages) {
        const rects = mark?.page === page ? index.set(mark) : index.delete(id);
        stale.set(page, [...(stale.get(page) ?? []), ...rects]);
      }
    }
    return stale;
  }
}
