import isEqual from 'fast-deep-equal';
import type { Mark } from '../marks/mark.js';
import type { Space } from '../marks/shared.js';
import type { Page } from '../pages/page.js';
import { applyChanges } from './apply.js';
import { countWhile } from './countWhile.js';
import type { Change, LoggedOperation } from './operation.js';

/** A page and what was on it at some time. */
export interface PageState {
  /** The page itself; undefined before it was there. */
  page: Page | undefined;
  marks: ReadonlyMap<string, Mark>;
}

const NOTHING: PageState = { page: undefined, marks: new Map() };
/** Steps between two states that are kept, so that any other is a few steps away. */
const KEPT_EVERY = 256;

/** Tells marks of a space from others. */
export function isIn(space: Space): (mark: Mark) => boolean {
  return (mark) => mark.space === space;
}

/** The states that one page has been in, as far as the marks that count go: before its first step, and after each. */
export class PageHistory {
  /** What was done to the page and the marks that count, oldest first. */
  readonly steps: readonly LoggedOperation[];
  /** States after 0, 256, 512 … steps, as far as they were asked for. */
  private readonly kept: PageState[] = [NOTHING];
  /** What was asked for last, which is often asked for again. */
  private latest = { count: 0, state: NOTHING };

  /** Operations come in the order of their numbers; those that are about something else are left out. */
  constructor(
    readonly pageId: string,
    private readonly counts: (mark: Mark) => boolean,
    operations: Iterable<LoggedOperation>,
  ) {
    const ids = new Set<string>();
    this.steps = [...operations].filter(({ operation }) => this.isAbout(operation.changes, ids));
  }

  /** The state after so many steps: 0 is before anything, `steps.length` the last one. Throws RangeError. */
  after(count: number): PageState {
    if (!Number.isInteger(count) || count < 0 || count > this.steps.length)
      throw new RangeError(`There are ${this.steps.length} steps, not ${count}.`);
    if (this.latest.count === count) return this.latest.state;
    let done = Math.min(Math.floor(count / KEPT_EVERY), this.kept.length - 1) * KEPT_EVERY;
    let state = this.kept[done / KEPT_EVERY]!;
    while (done < count) {
      const next = Math.min(count, done + KEPT_EVERY - (done % KEPT_EVERY));
      state = this.stateAfter(state, this.steps.slice(done, next));
      done = next;
      if (done % KEPT_EVERY === 0) this.kept[done / KEPT_EVERY] ??= state;
    }
    this.latest = { count, state };
    return state;
  }

  /** How many steps there were when the log had come as far as an operation's number. */
  countAt(seq: number): number {
    return this.steps.filter((step) => step.seq <= seq).length;
  }

  /** How many steps there were at a time, milliseconds since 1970-01-01 UTC. */
  countBy(time: number): number {
    return countWhile(this.steps.length, (i) => this.steps[i]!.at <= time);
  }

  private stateAfter(before: PageState, steps: readonly LoggedOperation[]): PageState {
    const pages = new Map(before.page ? [[this.pageId, before.page]] : []);
    const marks = new Map(before.marks);
    for (const { operation } of steps)
      applyChanges(
        { pages, marks },
        operation.changes.filter((change) => this.mayCount(change)),
      );
    return { page: pages.get(this.pageId), marks };
  }

  private isAbout(changes: readonly Change[], ids: Set<string>): boolean {
    let is = false;
    for (const change of changes) {
      if (change.do === 'add' && this.mayCount(change)) ids.add(change.mark.id);
      const counts =
        change.do === 'patch' || change.do === 'remove' ? ids.has(change.mark) : this.mayCount(change);
      is ||= counts;
    }
    return is;
  }

  /** Whether a change can be about this page and marks that count: changes of marks that are elsewhere find none here. */
  private mayCount(change: Change): boolean {
    switch (change.do) {
      case 'add':
        return change.mark.page === this.pageId && this.counts(change.mark);
      case 'addPage':
        return change.page.id === this.pageId;
      case 'patchPage':
      case 'removePage':
        return change.page === this.pageId;
      default:
        return true;
    }
  }
}

/**
 * The changes that make a page what it was: its paper and the marks of a space. Marks that are locked now are unlocked
 * for it. Where the page lies among others and what it is called stays.
 */
export function restoringChanges(now: PageState, then: PageState): Change[] {
  const changes: Change[] = [];
  if (now.page && then.page && !isEqual(paperOf(now.page), paperOf(then.page)))
    changes.push({ do: 'patchPage', page: now.page.id, set: paperOf(then.page) });
  for (const [id, mark] of now.marks) {
    if (isEqual(mark, then.marks.get(id))) continue;
    if (mark.locked) changes.push({ do: 'patch', mark: id, set: { locked: false } });
    changes.push({ do: 'remove', mark: id });
  }
  for (const [id, mark] of then.marks)
    if (!isEqual(mark, now.marks.get(id))) changes.push({ do: 'add', mark });
  return changes;
}

function paperOf({ width, height, surface }: Page): Pick<Page, 'width' | 'height' | 'surface'> {
  return { width, height, surface };
}
