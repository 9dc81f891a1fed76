import type { Change, Mark, Page, PagePatch, Surface } from '@doodla/core';
import { byOrder, orderBetween, orderedPages } from '@doodla/core';
import { nanoid } from 'nanoid';
import type { Workspace } from './workspace';

/** Size and surface of a page to be made. */
export interface Sheet {
  width: number;
  height: number;
  surface: Extract<Surface, { kind: 'blank' | 'picture' }>;
}

/** What a teacher does with the pages of a lesson, while preparing or in class. Each is one step to undo. */
export class PageActions {
  constructor(private readonly workspace: Workspace) {}

  /** Adds a blank page beside another and shows it. */
  add(sheet: Sheet, beside: string, where: 'before' | 'after'): void {
    const page: Page = {
      id: nanoid(),
      order: this.orderBeside(beside, where),
      title: '',
      removed: false,
      ...sheet,
    };
    if (this.perform([{ do: 'addPage', page }])) this.workspace.turnTo(page.id);
  }

  /** Adds a page after another without turning to it. Returns its id. */
  addQuietly(sheet: Sheet, after: string, title: string): string {
    const id = nanoid();
    const order = this.orderBeside(after, 'after');
    this.perform([{ do: 'addPage', page: { id, order, title, removed: false, ...sheet } }]);
    return id;
  }

  /** Puts a copy after a page, with all that is on it, and shows it. */
  duplicate(id: string): void {
    const original = this.find(id);
    if (!original) return;
    const page: Page = { ...original, id: nanoid(), order: this.orderBeside(id, 'after') };
    const [prepared, own] = this.workspace.layers.map((layer) => layer.on(id).all());
    const copies = (marks: readonly Mark[] | undefined) => copiesOn(page.id, marks ?? []);
    if (!this.perform([{ do: 'addPage', page }, ...copies(prepared)])) return;
    const classMarks = copies(own);
    if (classMarks.length > 0) this.workspace.target.perform(classMarks);
    this.workspace.turnTo(page.id);
  }

  /** Takes a page out; the last one stays. Returns whether it was taken. */
  remove(id: string): boolean {
    const pages = this.workspace.pages.get();
    const at = pages.findIndex((page) => page.id === id);
    const neighbour = pages[at + 1] ?? pages[at - 1];
    if (at < 0 || !neighbour) return false;
    if (this.workspace.pageId.get() === id) this.workspace.turnTo(neighbour.id);
    return this.perform([{ do: 'patchPage', page: id, set: { removed: true } }]);
  }

  rename(id: string, title: string): void {
    this.patch(id, { title });
  }

  /** A web page is as high as its content, which is known once it is laid out. */
  setHeight(id: string, height: number): void {
    this.workspace.lessonLog.perform([{ do: 'patchPage', page: id, set: { height } }]);
  }

  /** Changes a blank page's paper. */
  setSheet(id: string, sheet: Sheet): void {
    this.patch(id, sheet);
  }

  /** Moves a page so that it is the n-th, from 0. */
  moveTo(id: string, n: number): void {
    const others = this.workspace.pages.get().filter((page) => page.id !== id);
    const order = orderBetween(others[n - 1]?.order ?? null, others[n]?.order ?? null);
    this.patch(id, { order });
  }

  undo(): void {
    this.workspace.lessonLog.undo();
  }

  private patch(id: string, set: PagePatch): void {
    this.perform([{ do: 'patchPage', page: id, set }]);
  }

  private perform(changes: Change[]): boolean {
    this.workspace.settle();
    return this.workspace.lessonLog.perform(changes);
  }

  private find(id: string): Page | undefined {
    return this.workspace.pages.get().find((page) => page.id === id);
  }

  private orderBeside(id: string, where: 'before' | 'after'): string {
    // Removed pages keep their place, so that they come back to it.
    const all = [...this.workspace.lessonLog.state.pages.values()].sort(byOrder);
    const shown = orderedPages(all);
    const at = all.findIndex((page) => page.id === id);
    if (at < 0) return orderBetween(shown.at(-1)?.order ?? null, null);
    const [low, high] = where === 'after' ? [all[at], all[at + 1]] : [all[at - 1], all[at]];
    return orderBetween(low?.order ?? null, high?.order ?? null);
  }
}

function copiesOn(page: string, marks: readonly Mark[]): Change[] {
  return marks.map((mark) => ({ do: 'add', mark: { ...mark, id: nanoid(), page } }));
}
