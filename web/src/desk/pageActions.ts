import type { Change, Mark, Page, PagePatch, Sheet } from '@doodla/core';
import { copiesOf, ordersBeside, FORMATS, orderAt } from '@doodla/core';
import { nanoid } from 'nanoid';
import type { Desk } from './desk';

/** What is higher than this, times its width, is a web page and no paper. */
const MOST_HEIGHT = 2;

/** What a teacher does with the pages of a lesson, or in class with that class's own. Each is one step to undo. */
export class PageActions {
  constructor(
    private readonly desk: Pick<Desk, 'layers' | 'pageId' | 'pages' | 'settle' | 'target' | 'turnTo'>,
  ) {}

  /** Adds a blank page beside another and shows it. */
  add(sheet: Sheet, beside: string, where: 'before' | 'after'): void {
    const page: Page = {
      id: nanoid(),
      order: this.orderBeside(beside, where),
      title: '',
      removed: false,
      ...sheet,
    };
    if (this.perform([{ do: 'addPage', page }]) !== undefined) this.desk.turnTo(page.id);
  }

  /** Adds a blank page like another after it and shows it; after an original, one of white paper. */
  addLike(id: string): void {
    const like = this.find(id);
    if (like) this.add(sheetLike(like), id, 'after');
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
    const marks = this.desk.layers.flatMap((layer) => layer.on(id).all());
    if (this.perform([{ do: 'addPage', page }, ...copiesOn(page.id, marks)]) !== undefined)
      this.desk.turnTo(page.id);
  }

  /** Keeps copies of a page as pages of the class after it, with all that is seen on each. Each is a step to undo. */
  keepCopies(id: string, copies: readonly { title: string; marks: readonly Mark[] }[]): void {
    const original = this.find(id);
    if (!original) return;
    const { length: count } = copies;
    const orders = ordersBeside(this.desk.target.state.pages.values(), id, { where: 'after', count });
    for (const [i, { title, marks }] of copies.entries()) {
      const page: Page = { ...original, id: nanoid(), title, order: orders[i]! };
      this.perform([{ do: 'addPage', page }, ...copiesOn(page.id, marks.map(asOfClass))]);
    }
  }

  /** Keeps a page as it once was as a page of its own after it, and shows that. `marks` are all that is on it. */
  keepMoment(id: string, then: Page, title: string, marks: readonly Mark[]): void {
    if (!this.find(id)) return;
    const page: Page = { ...then, id: nanoid(), title, removed: false, order: this.orderBeside(id, 'after') };
    if (this.perform([{ do: 'addPage', page }, ...copiesOn(page.id, marks.map(asOfClass))]) !== undefined)
      this.desk.turnTo(page.id);
  }

  /** Takes pages out; the last one stays. Returns the step, to be taken back, if they were taken. */
  remove(ids: readonly string[]): string | undefined {
    const pages = this.desk.pages.get();
    const at = pages.findIndex(({ id }) => id === this.desk.pageId.get());
    const stays = (page: Page) => !ids.includes(page.id);
    const neighbour = pages.slice(at).find(stays) ?? pages.slice(0, Math.max(0, at)).findLast(stays);
    if (!neighbour) return undefined;
    if (pages[at] && !stays(pages[at])) this.desk.turnTo(neighbour.id);
    return this.perform(ids.map((page) => ({ do: 'patchPage', page, set: { removed: true } })));
  }

  rename(id: string, title: string): void {
    this.patch(id, { title });
  }

  /** A web page is as high as its content, which is known once it is laid out. */
  setHeight(id: string, height: number): void {
    this.desk.target.perform([{ do: 'patchPage', page: id, set: { height } }]);
  }

  /** Changes a blank page's paper. */
  setSheet(id: string, sheet: Sheet): void {
    this.patch(id, sheet);
  }

  /** Moves a page so that it is the n-th, from 0. */
  moveTo(id: string, n: number): void {
    const others = this.desk.pages.get().filter((page) => page.id !== id);
    this.patch(id, { order: orderAt(others, n) });
  }

  private patch(id: string, set: PagePatch): void {
    this.perform([{ do: 'patchPage', page: id, set }]);
  }

  private perform(changes: Change[]): string | undefined {
    this.desk.settle();
    return this.desk.target.perform(changes);
  }

  private find(id: string): Page | undefined {
    return this.desk.pages.get().find((page) => page.id === id);
  }

  private orderBeside(id: string, where: 'before' | 'after'): string {
    return ordersBeside(this.desk.target.state.pages.values(), id, { where })[0]!;
  }
}

const asOfClass = (mark: Mark): Mark => ({ ...mark, space: 'class' });

function copiesOn(page: string, marks: readonly Mark[]): Change[] {
  return copiesOf(marks, nanoid).map((mark) => ({ do: 'add', mark: { ...mark, page } }));
}

/** A blank page of the same size and paper; of what is much higher than wide, of a display. */
function sheetLike({ width, height, surface }: Page): Sheet {
  const size = height > MOST_HEIGHT * width ? FORMATS.wide : { width, height };
  if (surface.kind === 'blank') return { width, height, surface };
  return { ...size, surface: { kind: 'blank', colour: '#ffffff', ruling: 'plain', spacing: 10 } };
}
