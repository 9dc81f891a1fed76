import type { Mark, Person, Space, StudentTable } from '@doodla/core';
import { seatOf } from '@doodla/core';
import type { LogChange } from '@doodla/core/client';
import type { Room } from './room';

/** A student's or table's copy of a page. */
export interface Copy {
  space: Space;
  /** Who works on it. */
  people: readonly Person[];
  /** The table that it is of, if it is a table's. */
  table: string | undefined;
  marks: readonly Mark[];
  /** When something was last written on it, by the class's clock; undefined where nothing is yet. */
  writtenAt: number | undefined;
}

/** Watches the copies of a class's pages: what is on them, and when it was put there. */
export class Copies {
  private readonly heardAt = new Map<string, number>();
  /** What was on each copy when it was last looked at. */
  private readonly seen = new Map<string, readonly Mark[]>();
  private readonly told = new Map<string, Copy>();
  private readonly stop: () => void;

  constructor(private readonly room: Pick<Room, 'classroom' | 'target'>) {
    this.stop = room.target.touched.subscribe((change) => this.note(change));
  }

  /** The copies of a page, in the order of seats or tables; the same objects as before where nothing is different. */
  of(page: string): Copy[] {
    const state = this.room.classroom!.state.get();
    if (!state) return [];
    const { people, tables, ways } = state;
    const marks = this.marksBySpace(page);
    const copyOf = (space: Space, who: readonly Person[], table?: StudentTable): Copy => {
      const own = this.sameIfUnchanged(`${page} ${space}`, marks.get(space) ?? []);
      const writtenAt = this.writtenAt(page, space, own);
      return this.sameCopy(page, { space, people: who, table: table?.id, marks: own, writtenAt });
    };
    if (ways[page] === 'tables' || ways[page] === 'fields')
      return tables.map((table) =>
        copyOf(
          `table:${table.id}`,
          people.filter(({ id }) => table.students.includes(id)),
          table,
        ),
      );
    const own = people.map((person) => copyOf(`student:${person.id}`, [person]));
    const seats = [...marks.keys()].filter((space) => seatOf(space) !== undefined).sort();
    return [...own, ...seats.map((space) => copyOf(space, []))];
  }

  /** What is on a page for everybody; the same list as before where nothing is different. */
  common(page: string): readonly Mark[] {
    const marks = [...this.room.target.state.marks.values()];
    const common = marks.filter((mark) => mark.page === page && mark.space === 'class');
    return this.sameIfUnchanged(`${page} class`, common);
  }

  close(): void {
    this.stop();
  }

  /** Clocks of browsers may be wrong, so what is heard here counts first. */
  private writtenAt(page: string, space: Space, marks: readonly Mark[]): number | undefined {
    const heard = this.heardAt.get(`${page} ${space}`);
    if (heard !== undefined || marks.length === 0) return heard;
    return Math.min(this.room.classroom!.now, Math.max(...marks.map(({ createdAt }) => createdAt)));
  }

  /** The same list as before where nothing is different, so that nothing is drawn anew. */
  private sameIfUnchanged(copy: string, marks: readonly Mark[]): readonly Mark[] {
    const before = this.seen.get(copy);
    if (before?.length === marks.length && before.every((mark, i) => mark === marks[i])) return before;
    this.seen.set(copy, marks);
    return marks;
  }

  private sameCopy(page: string, copy: Copy): Copy {
    const key = `${page} ${copy.space}`;
    const before = this.told.get(key);
    const isSame =
      before !== undefined &&
      before.marks === copy.marks &&
      before.writtenAt === copy.writtenAt &&
      before.table === copy.table &&
      before.people.length === copy.people.length &&
      before.people.every(({ id, name }, i) => id === copy.people[i]!.id && name === copy.people[i]!.name);
    if (isSame) return before;
    this.told.set(key, copy);
    return copy;
  }

  private marksBySpace(page: string): Map<Space, Mark[]> {
    const bySpace = new Map<Space, Mark[]>();
    for (const mark of this.room.target.state.marks.values()) {
      if (mark.page !== page || mark.space === 'class') continue;
      const own = bySpace.get(mark.space);
      if (own) own.push(mark);
      else bySpace.set(mark.space, [mark]);
    }
    for (const own of bySpace.values()) own.sort((a, b) => (a.order < b.order ? -1 : 1));
    return bySpace;
  }

  private note({ marks, arrived }: LogChange): void {
    if (arrived !== undefined) return;
    for (const id of marks) {
      const mark = this.room.target.state.marks.get(id);
      if (mark && mark.space !== 'class')
        this.heardAt.set(`${mark.page} ${mark.space}`, this.room.classroom!.now);
    }
  }
}
