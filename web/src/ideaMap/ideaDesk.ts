import type { Mark } from '@doodla/core';
import { byOrder } from '@doodla/core';
import type { Idea, IdeaLayout, OutlineItem } from '@doodla/core/idea-map';
import { IdeaEdit, IdeaField, ideasOf, layoutOf, newIdeaMap } from '@doodla/core/idea-map';
import { nanoid } from 'nanoid';
import type { PageDesk } from '../room/pageDesk';

type MarkingDesk = Pick<
  PageDesk,
  'layers' | 'mayTouch' | 'middle' | 'newMark' | 'pageId' | 'settle' | 'shownSpace' | 'sitting' | 'target'
>;

/** Idea maps on the shown page, and what is done to them. Each is one step to undo. */
export class IdeaDesk {
  constructor(private readonly desk: MarkingDesk) {}

  /** The map that a mark is part of; without one the first on the page. Undefined where there is none. */
  find(around: string | undefined): Idea | undefined {
    const field = new IdeaField(this.marks());
    const id = around ?? field.ideas.keys().next().value;
    return id === undefined ? undefined : field.mapAround(id);
  }

  /** Whether all of a map may be laid out anew by whoever is here. */
  mayLayOut(map: Idea): boolean {
    return ideasOf(map).every(({ mark, line }) => this.mayTouch(mark) && (!line || this.mayTouch(line)));
  }

  mayTouch = (mark: Mark): boolean => this.desk.target.state.marks.has(mark.id) && this.desk.mayTouch(mark);

  /** How a map is laid out; undefined where some of it was put by hand, or may not be moved. */
  layoutOf(map: Idea): IdeaLayout | undefined {
    return this.mayLayOut(map) ? layoutOf(map, this.showsFolded) : undefined;
  }

  /** Puts a new map in the middle of what is seen. Returns what is in its middle; undefined where nothing may be put. */
  start(outline: OutlineItem, layout: IdeaLayout): string | undefined {
    if (!this.desk.newMark()) return undefined;
    const { x, y } = this.desk.middle();
    const { root, changes } = newIdeaMap(outline, [x, y], layout, this.common);
    this.desk.settle();
    return this.desk.target.perform(changes) === undefined ? undefined : root;
  }

  /** Changes a map, and lays it out where it is laid out by itself. Returns whether it could be. */
  change(root: string, layout: IdeaLayout | undefined, what: (edit: IdeaEdit) => void): boolean {
    if (!this.desk.newMark()) return false;
    const making = { common: this.common, layout, showsFolded: this.showsFolded };
    const edit = new IdeaEdit(this.marks(), root, making, this.mayTouch);
    what(edit);
    const changes = edit.done();
    this.desk.settle();
    return changes.length === 0 || this.desk.target.perform(changes) !== undefined;
  }

  private get showsFolded(): boolean {
    return this.desk.sitting === undefined;
  }

  private readonly common = () => this.desk.newMark(nanoid())!;

  /** All that is on the page for whoever is here, with what is folded away. */
  private marks(): Mark[] {
    const { layers, pageId, shownSpace } = this.desk;
    const isHere = ({ page, space }: Mark) =>
      page === pageId.get() && (space === 'class' || space === shownSpace);
    return layers.flatMap(({ log }) => [...log.state.marks.values()].filter(isHere)).sort(byOrder);
  }
}
