import type { Mark } from '@doodla/core';
import { byOrder } from '@doodla/core';
import type { Idea, IdeaLayout, OutlineItem } from '@doodla/core/idea-map';
import {
  boundsOf,
  IdeaEdit,
  IdeaField,
  ideasOf,
  isMiddle,
  layoutOf,
  newIdeaMap,
} from '@doodla/core/idea-map';
import { nanoid } from 'nanoid';
import type { PageDesk } from '../room/pageDesk';

type MarkingDesk = Pick<
  PageDesk,
  'isTeacher' | 'layers' | 'mayTouch' | 'middle' | 'newMark' | 'pageId' | 'settle' | 'shownSpace' | 'target'
>;

/** Idea maps on the shown page, and what is done to them. Each is one step to undo. */
export class IdeaDesk {
  /** How the map was last laid out, and where its ideas were then. */
  private laid: { layout: IdeaLayout; places: Places } | undefined;

  constructor(private readonly desk: MarkingDesk) {}

  /** The map that a mark is part of; without one the first on the page. Undefined where there is none. */
  find(around: string | undefined): Idea | undefined {
    const marks = this.marks();
    const field = new IdeaField(marks);
    // One that was only begun has no line yet.
    const id = around ?? marks.find(isMiddle)?.id ?? field.ideas.keys().next().value;
    return id === undefined ? undefined : field.mapAround(id);
  }

  /** Whether whoever is here may say what marks do in class. */
  get mayRule(): boolean {
    return this.desk.isTeacher;
  }

  /** Whether all of a map may be laid out anew by whoever is here. */
  mayLayOut(map: Idea): boolean {
    return ideasOf(map).every(({ mark, line }) => this.mayTouch(mark) && (!line || this.mayTouch(line)));
  }

  mayTouch = (mark: Mark): boolean => this.desk.target.state.marks.has(mark.id) && this.desk.mayTouch(mark);

  /**
   * How a map is laid out; undefined where some of it was put by hand, or may not be moved. What somebody who may not lay it out
   * has hung on it does not count.
   */
  layoutOf(map: Idea): IdeaLayout | undefined {
    if (!this.mayLayOut(map)) return undefined;
    const layout = layoutOf(map);
    const places = new Map(ideasOf(map).map(({ mark }) => [mark.id, middleBeside(mark, map.mark)]));
    if (layout) this.laid = { layout, places };
    return layout ?? (this.laid && isStill(places, this.laid.places) ? this.laid.layout : undefined);
  }

  /**
   * Puts a new map in the middle of what is seen, `instead` of one of a single idea, if it says so. Returns what is in its middle;
   * undefined where nothing may be put.
   */
  start(outline: OutlineItem, layout: IdeaLayout, instead?: string): string | undefined {
    if (!this.desk.newMark()) return undefined;
    const { x, y } = this.desk.middle();
    const { root, changes } = newIdeaMap(outline, [x, y], layout, this.common);
    this.desk.settle();
    const gone = instead === undefined ? [] : [{ do: 'remove' as const, mark: instead }];
    return this.desk.target.perform([...gone, ...changes]) === undefined ? undefined : root;
  }

  /** Changes a map, and lays it out where it is laid out by itself. Returns whether it could be. */
  change(root: string, layout: IdeaLayout | undefined, what: (edit: IdeaEdit) => void): boolean {
    if (!this.desk.newMark()) return false;
    const making = { common: this.common, layout, mayRule: this.mayRule };
    const edit = new IdeaEdit(this.marks(), root, making, this.mayTouch);
    what(edit);
    const changes = edit.done();
    this.desk.settle();
    return changes.length === 0 || this.desk.target.perform(changes) !== undefined;
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

type Places = ReadonlyMap<string, readonly [number, number]>;
type Box = Parameters<typeof boundsOf>[0];

/** The middle of a box from that of another. */
function middleBeside(mark: Box, other: Box): readonly [number, number] {
  const [a, b] = [boundsOf(mark), boundsOf(other)];
  return [a.x + a.width / 2 - b.x - b.width / 2, a.y + a.height / 2 - b.y - b.height / 2];
}

/** Whether all that was there before and still is has its place, within so many page units. */
const isStill = (places: Places, before: Places, within = 1): boolean =>
  [...places].every(([id, [x, y]]) => {
    const [wasX, wasY] = before.get(id) ?? [x, y];
    return Math.hypot(x - wasX, y - wasY) <= within;
  });
