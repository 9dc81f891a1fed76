import equal from 'fast-deep-equal';
import { MOST_THINGS } from '../answers/ruleCheck.js';
import type { BoxMark, Mark, MarkPatch } from '../marks/mark.js';
import { hasBox } from '../marks/mark.js';
import { transformPatch } from '../marks/transformPatch.js';
import { patchMark } from '../ops/apply.js';
import type { Change } from '../ops/operation.js';
import { orderAt, ordersAt } from '../ops/order.js';
import { byOrder } from '../pages/page.js';
import type { Branch, Common } from './ideaMarks.js';
import {
  BRANCHES,
  branchOf,
  ideaMark,
  lineCourse,
  lineStyle,
  looksPatch,
  round,
  textPatch,
} from './ideaMarks.js';
import type { Idea, Line } from './ideaTree.js';
import { boundsOf, IdeaField, ideasOf, isFolded, opensByTap, wordsOf } from './ideaTree.js';
import type { Box, IdeaLayout, Middle } from './layout.js';
import { IDEA_LAYOUTS, layIdeas } from './layout.js';
import type { OutlineItem } from './outline.js';

/** Below the last of those that hang on an idea, where nothing is laid out by itself; page units. */
const BELOW = 14;
/** So far from where it would be laid a box is put by hand, page units. */
const BY_HAND = 3;
/** From an idea to the first that hangs on it, before it is laid out. */
const BESIDE = 120;

export interface Making {
  /** The parts of a new mark that do not depend on its kind. */
  common(): Common;
  layout: IdeaLayout | undefined;
  /** Whether rules may be made here, which only a teacher does; if it does not say, they may. */
  mayRule?: boolean;
}

/** An idea that is hung on another. */
interface Hanging {
  item: OutlineItem;
  order: string;
  depth: number;
  branch: Branch | undefined;
  at: Middle;
}

/**
 * Changes of an idea map on a page, gathered as one step. What somebody else has taken away by now is left alone. `layout` lays the map out after each; without it nothing moves, and what
 * is new lies beside its idea. Marks that may not be changed by whoever edits stay as they are: `mayTouch`.
 */
export class IdeaEdit {
  readonly changes: Change[] = [];
  private readonly marks: Map<string, Mark>;
  /** Marks that are new. */
  private readonly made = new Set<string>();
  /** Ideas that have no place of their own yet. */
  private readonly fresh = new Set<string>();
  /** Lowest place in the order of marks. */
  private lowest: string | undefined;

  constructor(
    marks: readonly Mark[],
    private readonly root: string,
    private readonly making: Making,
    private readonly mayTouch: (mark: Mark) => boolean = () => true,
  ) {
    this.marks = new Map(marks.map((mark) => [mark.id, mark]));
    this.lowest = [...marks].sort(byOrder)[0]?.order;
  }

  /** The map as it is after the changes so far. */
  private map(): Idea | undefined {
    return new IdeaField([...this.marks.values()]).mapAround(this.root);
  }

  /** The ideas from the middle to one, with that one; none where it is not there. */
  private path(id: string): Idea[] {
    const map = this.map();
    return map ? pathTo(map, id) : [];
  }

  private idea(id: string): Idea | undefined {
    return this.path(id).at(-1);
  }

  /** Hangs an idea, with all of its own, on another as the n-th. Returns its id. */
  add(parent: string, at: number, item: OutlineItem): string | undefined {
    this.fold(parent, false);
    const path = this.path(parent);
    const above = path.at(-1);
    if (!above) return undefined;
    const depth = path.length;
    const branch = depth === 1 ? this.nextBranch(above) : branchOf(above.mark);
    const order = orderAt(
      above.children.map(({ mark }) => mark),
      at,
    );
    const made = this.hang(above.mark, { item, order, depth, branch, at: placeBeside(above) });
    if (this.opensItsIdeas(above)) this.openByTaps(parent, true);
    return made;
  }

  /** As `add`, of an idea that is known to be part of no other. */
  hang(above: BoxMark, { item, order, depth, branch, at }: Hanging): string {
    const mark = ideaMark({ ...this.making.common(), order }, item.text, { depth, branch, at });
    this.put(mark);
    this.fresh.add(mark.id);
    this.join(above, mark, depth, branch);
    const orders = ordersAt([], 0, item.children.length);
    for (const [i, child] of item.children.entries())
      this.hang(mark, {
        ...{ item: child, order: orders[i]!, depth: depth + 1, branch },
        at: [at[0] + BESIDE, at[1] + i * BESIDE * 0.4],
      });
    return mark.id;
  }

  /** Other words in an idea; one that is no text has them as what it is described by. */
  setText(id: string, text: string): void {
    const idea = this.idea(id);
    if (!idea) return;
    const { mark, within } = idea;
    const typed = [mark, ...within].find(({ kind }) => kind === 'text');
    if (typed?.kind === 'text')
      this.patch(typed.id, typed.id === id ? textPatch(typed, text) : { text: text || ' ' });
    else this.patch(id, { alt: text === '' ? null : text });
    this.redrawAround(id);
  }

  /** Hangs an idea, with all that hangs on it, on another as the n-th. Nothing is done where that one hangs on it. */
  move(id: string, parent: string, at: number): void {
    const idea = this.idea(id);
    const own = new Set((idea ? ideasOf(idea) : []).map((each) => each.mark.id));
    if (!idea?.line || own.has(parent) || !this.idea(parent)) return;
    const { mark, line } = idea;
    this.fold(parent, false);
    const above = this.idea(parent)!;
    const others = above.children.filter((child) => child.mark.id !== id);
    this.patch(id, {
      order: orderAt(
        others.map((child) => child.mark),
        at,
      ),
    });
    this.drawLine(line.id, parent, mark.id, this.making.layout);
    const path = this.path(id);
    this.restyle(path.at(-1)!, path.length - 1, branchOf(path.at(-2)!.mark));
    if (this.opensItsIdeas(above)) this.openByTaps(parent, true);
    else for (const one of marksOf(path.at(-1)!)) if (one.hidden) this.patch(one.id, { hidden: false });
  }

  /** Takes an idea away with all that hangs on it. */
  remove(id: string): void {
    for (const idea of this.branch(id))
      for (const one of marksOf(idea)) {
        this.marks.delete(one.id);
        this.changes.push({ do: 'remove', mark: one.id });
      }
  }

  /** Folds all that hangs on an idea away, or shows it again, with the idea itself; what was folded in it stays so. */
  fold(id: string, isAway: boolean): void {
    if (isAway) this.setFolded(id, (folded) => folded ?? id);
    else
      for (const { mark } of this.path(id).filter(isFolded))
        this.setFolded(mark.id, (folded) => (folded === mark.id ? null : folded));
  }

  private setFolded(id: string, set: (folded: string | null) => string | null): void {
    const there = new Set(ideasOf(this.map()!).map(({ mark }) => mark.id));
    for (const idea of this.branch(id).slice(1))
      for (const one of marksOf(idea)) {
        // One that is folded away under what is gone is not.
        const before = one.folded != null && there.has(one.folded) ? one.folded : null;
        const folded = set(before);
        if (folded !== (one.folded ?? null)) this.patch(one.id, { folded });
      }
  }

  /** Lets a class open a branch step by step: a tap on an idea shows what hangs on it, which is hidden until then. Or no longer. */
  openByTaps(id: string, byTaps: boolean): void {
    for (const idea of this.branch(id)) {
      const next = idea.children.flatMap(marksOf).map((mark) => mark.id);
      if (next.length === 0) continue;
      for (const one of next) this.patch(one, { hidden: byTaps });
      const others = { ...idea.mark.rule };
      delete others.tap;
      const tap = { steps: inParts(next).map((marks) => ({ do: 'show' as const, marks })), once: true };
      const rule = byTaps ? { ...others, tap } : Object.keys(others).length > 0 ? others : null;
      this.patch(idea.mark.id, { rule });
    }
  }

  /** Whether what is hung on an idea is to be opened by a tap as well: what a student hangs there is seen at once. */
  private opensItsIdeas(idea: Idea): boolean {
    return (this.making.mayRule ?? true) && opensByTap(idea);
  }

  /** Gives an idea and all that hangs on it the colours of a branch. */
  colour(id: string, branch: Branch): void {
    for (const { mark, line } of this.branch(id)) {
      if (mark.id !== this.root && mark.kind === 'text')
        this.patch(mark.id, { style: { background: branch.ground } });
      if (line) this.patch(line.id, { style: { line: branch.line } });
    }
  }

  /** Lays the whole map out, with its middle where it is. */
  layOut(layout: IdeaLayout): void {
    const map = this.map();
    if (!map) return;
    const places = placesOf(map, layout, this.fresh);
    const [ox, oy] = middleOf(map);
    for (const idea of openIdeas(map)) {
      const [x, y] = places.get(idea.mark.id)!;
      const [cx, cy] = middleOf(idea);
      this.shift(idea, ox + x - cx, oy + y - cy);
    }
    for (const { mark, children } of ideasOf(map))
      for (const child of children)
        if (child.line) this.drawLine(child.line.id, mark.id, child.mark.id, layout);
  }

  /** What was changed, laid out where the map lays itself out. */
  done(): Change[] {
    if (this.making.layout) this.layOut(this.making.layout);
    // What is new is added as it is in the end.
    return this.changes.flatMap((change): Change[] => {
      if (change.do === 'patch') return this.made.has(change.mark) ? [] : [change];
      const mark = change.do === 'add' && this.marks.get(change.mark.id);
      return mark ? [{ do: 'add', mark }] : [change];
    });
  }

  /** An idea with all that hangs on it. */
  private branch(id: string): Idea[] {
    const idea = this.idea(id);
    return idea ? ideasOf(idea) : [];
  }

  /** The branch that fewest of those round the middle have. */
  private nextBranch({ children }: Idea): Branch {
    const used = children.map(({ mark }) => branchOf(mark));
    const count = (branch: Branch) => used.filter((one) => one === branch).length;
    return [...BRANCHES].sort((a, b) => count(a) - count(b))[0]!;
  }

  private join(above: BoxMark, child: BoxMark, depth: number, branch: Branch | undefined): void {
    // Lines lie below all ideas.
    this.lowest = orderAt(this.lowest === undefined ? [] : [{ order: this.lowest }], 0);
    this.put({
      ...this.making.common(),
      order: this.lowest,
      kind: 'path',
      closed: false,
      heads: 'none',
      ...lineCourse(this.making.layout, placed(above), placed(child)),
      style: lineStyle(branch, depth),
    });
  }

  /** Gives a branch the look that goes with where it hangs. */
  private restyle({ mark, line, children }: Idea, depth: number, branch: Branch | undefined): void {
    const look = looksPatch(mark, depth, branch);
    if (look) this.patch(mark.id, look);
    const { line: colour, width } = lineStyle(branch ?? branchOf(mark), depth);
    if (line && look) this.patch(line.id, { style: { line: colour, width } });
    for (const child of children) this.restyle(child, depth + 1, branch);
  }

  private redrawAround(id: string): void {
    const idea = this.idea(id);
    for (const one of [idea?.line, ...(idea?.children ?? []).map((child) => child.line)]) {
      if (one?.from && one.to) this.drawLine(one.id, one.from.mark, one.to.mark, this.making.layout);
    }
  }

  private drawLine(line: string, from: string, to: string, layout: IdeaLayout | undefined): void {
    const [a, b] = [this.marks.get(from), this.marks.get(to)];
    if (!a || !b || !hasBox(a) || !hasBox(b)) return;
    const course = lineCourse(layout, placed(a), placed(b));
    const drawn = this.marks.get(line) as Line;
    if (!equal({ ...drawn, ...course }, drawn)) this.patch(line, course);
  }

  private shift({ mark, within }: Idea, dx: number, dy: number): void {
    if (Math.abs(dx) < 0.01 && Math.abs(dy) < 0.01) return;
    for (const one of [mark, ...within]) {
      const set = transformPatch(one, { kind: 'move', dx: round(dx), dy: round(dy) });
      if (set) this.patch(one.id, set);
    }
  }

  private put(mark: Mark): void {
    this.marks.set(mark.id, mark);
    this.made.add(mark.id);
    this.changes.push({ do: 'add', mark });
  }

  private patch(id: string, set: MarkPatch): void {
    const mark = this.marks.get(id)!;
    if (!this.made.has(id) && !this.mayTouch(mark)) return;
    this.marks.set(id, patchMark(mark, set));
    this.changes.push({ do: 'patch', mark: id, set });
  }
}

/** The ideas from the middle of a map to one, with that one. */
function pathTo(idea: Idea, id: string): Idea[] {
  if (idea.mark.id === id) return [idea];
  for (const child of idea.children) {
    const path = pathTo(child, id);
    if (path.length > 0) return [idea, ...path];
  }
  return [];
}

/** An idea with its line and what lies in it. */
const marksOf = ({ mark, line, within }: Idea): Mark[] => [mark, ...(line ? [line] : []), ...within];

/** As many ids together as a step of a tap has at most. */
const inParts = (ids: readonly string[]): string[][] =>
  Array.from({ length: Math.ceil(ids.length / MOST_THINGS) }, (_, i) =>
    ids.slice(i * MOST_THINGS, (i + 1) * MOST_THINGS),
  );

const placed = (mark: BoxMark) => ({ id: mark.id, ...boundsOf(mark) });

function middleOf({ mark }: Idea): Middle {
  const { x, y, width, height } = boundsOf(mark);
  return [x + width / 2, y + height / 2];
}

/** Ideas that are not folded away. */
const openIdeas = (idea: Idea): Idea[] => [idea, ...(isFolded(idea) ? [] : idea.children.flatMap(openIdeas))];

/** Where what is new lies before it is laid out: below what hangs there already, else beside. */
function placeBeside({ mark, children }: Idea): Middle {
  const box = boundsOf(mark);
  const last = children.at(-1);
  if (!last) return [box.x + box.width + BESIDE, box.y + box.height / 2];
  const { x, y, width, height } = boundsOf(last.mark);
  return [x + width / 2, y + height + BELOW + height / 2];
}

function placesOf(
  map: Idea,
  layout: IdeaLayout,
  fresh: ReadonlySet<string> = new Set(),
): Map<string, Middle> {
  const [middle] = middleOf(map);
  const boxOf = (idea: Idea, isFirst: boolean): Box => {
    const { width, height } = boundsOf(idea.mark);
    const children = isFolded(idea) ? [] : idea.children.map((child) => boxOf(child, idea === map));
    const isLeft = isFirst && !fresh.has(idea.mark.id) ? { isLeft: middleOf(idea)[0] < middle } : {};
    return { id: idea.mark.id, width, height, children, ...isLeft };
  };
  return layIdeas(boxOf(map, false), layout);
}

/** How a map is laid out; undefined where something was put elsewhere by hand. */
export function layoutOf(map: Idea): IdeaLayout | undefined {
  const [ox, oy] = middleOf(map);
  return IDEA_LAYOUTS.find((layout) => {
    const places = placesOf(map, layout);
    return openIdeas(map).every((idea) => {
      const [x, y] = places.get(idea.mark.id)!;
      const [cx, cy] = middleOf(idea);
      return Math.hypot(ox + x - cx, oy + y - cy) <= BY_HAND;
    });
  });
}

/** The words of a map. */
export const outlineOf = (idea: Idea): OutlineItem => ({
  text: wordsOf(idea).trim(),
  children: idea.children.map(outlineOf),
});

/** A new map of an outline, laid out round a place. */
export function newIdeaMap(
  { text, children }: OutlineItem,
  at: Middle,
  layout: IdeaLayout,
  common: () => Common,
): { root: string; changes: Change[] } {
  const root = ideaMark(common(), text, { depth: 0, branch: undefined, at });
  const edit = new IdeaEdit([root], root.id, { common, layout });
  const orders = ordersAt([], 0, children.length);
  for (const [i, item] of children.entries())
    edit.hang(root, { item, order: orders[i]!, depth: 1, branch: BRANCHES[i % BRANCHES.length], at });
  return { root: root.id, changes: [{ do: 'add', mark: root }, ...edit.done()] };
}
