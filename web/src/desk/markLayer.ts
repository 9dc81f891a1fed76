import type { Mark, Rect } from '@doodla/core';
import { SpatialIndex } from '@doodla/core';
import type { LogChange, LogClient } from '@doodla/core/client';

/** The marks of one log, by page, as far as they are shown; kept in step with the log. */
export class MarkLayer<Log extends Pick<LogClient, 'state'> = LogClient> {
  private readonly pages = new Map<string, SpatialIndex>();

  constructor(
    readonly log: Log,
    private readonly isShown: (mark: Mark) => boolean = () => true,
  ) {}

  on(page: string): SpatialIndex {
    let index = this.pages.get(page);
    if (!index) {
      const marks = [...this.log.state.marks.values()];
      index = new SpatialIndex(marks.filter((mark) => mark.page === page && this.isShown(mark)));
      this.pages.set(page, index);
    }
    return index;
  }

  /** Whether a mark of a page that is looked at is not known here yet. */
  isNew(mark: Mark): boolean {
    const index = this.pages.get(mark.page);
    return index !== undefined && this.isShown(mark) && !index.get(mark.id);
  }

  /** Looks at all marks anew, after something else is to be shown. */
  renew(): void {
    this.pages.clear();
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
        const rects = mark?.page === page && this.isShown(mark) ? index.set(mark) : index.delete(id);
        stale.set(page, [...(stale.get(page) ?? []), ...rects]);
      }
    }
    return stale;
  }
}
