import type { ClassState, ShownCopy, Space } from '@doodla/core';
import { seatSpace, spaceOn } from '@doodla/core';
import type { ClassClient, LogClient } from '@doodla/core/client';
import { Store } from '@doodla/core/client';

/** Who works, and in which class. */
interface Worker {
  readonly isTeacher: boolean;
  readonly seat: number | undefined;
  readonly classroom: Pick<ClassClient, 'state'> | undefined;
  readonly target: Pick<LogClient, 'actor'>;
}

/** In whose space somebody works on a page, and whose is shown: the class's, a table's, or one student's own copy. */
export class WorkSpaces {
  /** A copy that the teacher has opened to look at and write in. */
  readonly opened = new Store<{ page: string; space: Space } | undefined>(undefined);
  /** How pages were handed out when that was last looked at. */
  private before: string | undefined;

  constructor(private readonly worker: Worker) {}

  /** Whose marks new ones on a page are. */
  on(page: string | undefined): Space {
    const opened = this.opened.get();
    if (opened && opened.page === page) return opened.space;
    const { isTeacher, seat, target } = this.worker;
    if (seat !== undefined) return seatSpace(seat);
    if (isTeacher) return this.copyOn(page)?.space ?? 'class';
    const way = page === undefined ? undefined : this.state?.ways[page];
    return target.actor ? spaceOn(way, { ...target.actor, tables: this.tables(target.actor.id) }) : 'class';
  }

  /** The space of which marks are shown on a page, beside the class's. */
  shownOn(page: string): Space {
    return this.copyOn(page)?.space ?? this.on(page);
  }

  /** The copy of a page that is shown to all; not to the teacher who has opened another. */
  copyOn(page: string | undefined): ShownCopy | undefined {
    const copy = this.state?.copy;
    return copy && copy.page === page && this.opened.get()?.page !== page ? copy : undefined;
  }

  /** The students of the table whose copy of a page is shown, where each of them has a field of it. */
  fieldsOn(page: string): readonly string[] | undefined {
    if (this.state?.ways[page] !== 'fields') return undefined;
    const shown = this.shownOn(page);
    return this.state.tables.find(({ id }) => shown === `table:${id}`)?.students;
  }

  /** Whether the class is shown a copy that is not this student's. */
  get seesAnothers(): boolean {
    const copy = this.state?.copy;
    return copy ? copy.space !== this.on(copy.page) : false;
  }

  /** Whether the class hands its pages out in other ways than when that was last looked at. */
  changed(): boolean {
    const { ways, tables, copy } = this.state ?? {};
    const now = JSON.stringify([ways, tables, copy]);
    const isOther = this.before !== undefined && now !== this.before;
    this.before = now;
    return isOther;
  }

  private get state(): ClassState | undefined {
    return this.worker.classroom?.state.get();
  }

  private tables(student: string): string[] {
    const tables = this.state?.tables ?? [];
    return tables.filter(({ students }) => students.includes(student)).map(({ id }) => id);
  }
}
