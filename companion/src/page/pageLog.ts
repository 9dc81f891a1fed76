import type { Actor, Change, LogState, Mark, MarkPatch } from '@doodla/core';
import { isMark, isMarkPatch, patchMark, SpatialIndex } from '@doodla/core';
import { Signal, Store } from '@doodla/core/client';
import type { Glue, GluedMark } from '@doodla/core/glue';
import { nanoid } from 'nanoid';
import type { Hold } from './hold';
import { PlacedMark } from './placedMark';

/** What a step has changed: each mark as it was and as it is, undefined where it is not there. */
interface Step {
  id: string;
  was: ReadonlyMap<string, GluedMark | undefined>;
  is: ReadonlyMap<string, GluedMark | undefined>;
}

/** Changes after which a mark may belong to something else; all others leave it where it is. */
const STAYS: ReadonlySet<string> = new Set([
  'style',
  'order',
  'locked',
  'group',
  'alt',
  'text',
  'label',
  'look',
  'parts',
]);
/** Most marks on one page. */
export const MOST_MARKS = 20_000;

/** What a log of marks needs of the page that they lie on. */
export interface Ground {
  readonly top: Document;
  glueOf(mark: Mark): Glue;
  takeHold(glue: Glue): Hold | undefined;
}

/** Who writes here; alone, so nothing is forbidden. */
export const SELF: Actor = { id: 'self', role: 'teacher', tables: [] };
/** A page of the web is one page. */
export const PAGE = 'page';

/** The marks of a page of the web: what is done with them, undone, and where they lie now. */
export class PageLog {
  readonly actor = SELF;
  readonly status = new Store({ canUndo: false, canRedo: false });
  /** Tells which marks are others than before, by a step here or elsewhere. */
  readonly changed = new Signal<ReadonlySet<string>>();
  /** Tells which marks a step here has made others, so that they are kept. */
  readonly performed = new Signal<ReadonlySet<string>>();
  /** Tells what could not be done. */
  readonly refused = new Signal<'bad-mark' | 'too-many'>();
  private readonly placed = new Map<string, PlacedMark>();
  private readonly shown = new Map<string, Mark>();
  private readonly index = new SpatialIndex();
  /** Marks whose place may be another than `shown` says. */
  private readonly stale = new Set<string>();
  private undos: Step[] = [];
  private redos: Step[] = [];

  constructor(private readonly ground: Ground) {}

  /** The marks as they lie now. */
  get state(): LogState {
    this.settle();
    return { pages: new Map(), marks: this.shown };
  }

  /** The marks as they lie now, by place. */
  get marks(): SpatialIndex {
    this.settle();
    return this.index;
  }

  /** All marks, also those whose place is gone, the first made first. */
  all(): PlacedMark[] {
    return [...this.placed.values()];
  }

  get(id: string): PlacedMark | undefined {
    return this.placed.get(id);
  }

  allows(changes: Change[]): boolean {
    return this.refusal(changes) === undefined;
  }

  /** Does something, if it is allowed. Returns the step's id if it was. */
  perform(changes: Change[]): string | undefined {
    const refusal = this.refusal(changes);
    if (refusal) this.refused.tell(refusal);
    if (refusal || changes.length === 0) return undefined;
    const ids = changes.flatMap(markOf);
    const was = this.gluedOf(ids);
    for (const change of changes) this.apply(change);
    const step = { id: nanoid(), was, is: this.gluedOf(ids) };
    this.undos.push(step);
    this.redos = [];
    this.tell(ids);
    return step.id;
  }

  undo(): void {
    const step = this.undos.pop();
    if (!step) return;
    this.redos.push(step);
    this.restore(step.was);
  }

  redo(): void {
    const step = this.redos.pop();
    if (!step) return;
    this.undos.push(step);
    this.restore(step.is);
  }

  /** Takes back a certain step, if it was not taken back already. */
  takeBack(id: string): void {
    const step = this.undos.find((other) => other.id === id);
    if (!step) return;
    this.undos = this.undos.filter((other) => other !== step);
    this.restore(step.was);
  }

  /** Puts glued marks on the page as a step: those of a file. */
  bringIn(marks: readonly GluedMark[]): void {
    const ids = marks.map(({ mark }) => mark.id);
    const was = this.gluedOf(ids);
    for (const glued of marks) this.put(glued);
    this.undos.push({ id: nanoid(), was, is: this.gluedOf(ids) });
    this.redos = [];
    this.tell(ids);
  }

  /** Lays marks that others have made where they lie now, and takes those away that are gone; this is no step. */
  lay(marks: readonly Mark[], gone: readonly string[]): void {
    for (const mark of marks) if (isMark(mark)) this.put({ mark, glue: this.ground.glueOf(mark) });
    for (const id of gone) this.drop(id);
    this.changed.tell(new Set([...marks.map(({ id }) => id), ...gone]));
  }

  /** Takes marks as they were kept, or as another tab has made them; this is no step. */
  take(marks: ReadonlyMap<string, GluedMark | undefined>): void {
    for (const [id, glued] of marks) {
      if (glued) this.put(glued);
      else this.drop(id);
    }
    this.changed.tell(new Set(marks.keys()));
  }

  /**
   * Looks where marks lie now: those that something has moved, or all; where their words or elements are gone, whether these
   * are there again if `anew`. Returns whether any lies elsewhere than before.
   */
  measure(which: (placed: PlacedMark) => boolean = () => true, anew = false): boolean {
    let moved = false;
    for (const [id, placed] of this.placed) {
      if (!which(placed)) continue;
      let isMoved = placed.measure(this.ground.top);
      if (anew && !placed.matrix) {
        placed.hold = this.ground.takeHold(placed.glued.glue);
        isMoved = placed.measure(this.ground.top) || isMoved;
      }
      if (isMoved) this.stale.add(id);
      moved ||= isMoved;
    }
    return moved;
  }

  /** Forgets everything here: another page is shown. */
  clear(): void {
    for (const id of this.placed.keys()) this.stale.add(id);
    this.placed.clear();
    [this.undos, this.redos] = [[], []];
    this.status.set({ canUndo: false, canRedo: false });
    this.changed.tell(new Set());
  }

  private restore(marks: ReadonlyMap<string, GluedMark | undefined>): void {
    for (const [id, glued] of marks) {
      if (glued) this.put(glued);
      else this.drop(id);
    }
    this.tell([...marks.keys()]);
  }

  private refusal(changes: readonly Change[]): 'bad-mark' | 'too-many' | undefined {
    let count = this.placed.size;
    for (const change of changes) {
      if (change.do === 'add' && (!isMark(change.mark) || ++count > MOST_MARKS))
        return isMark(change.mark) ? 'too-many' : 'bad-mark';
      const kind = change.do === 'patch' && this.placed.get(change.mark)?.glued.mark.kind;
      if (kind && !isMarkPatch(kind, (change as { set: MarkPatch }).set)) return 'bad-mark';
    }
    return undefined;
  }

  private apply(change: Change): void {
    switch (change.do) {
      case 'add':
        return this.put({ mark: change.mark, glue: this.ground.glueOf(change.mark) });
      case 'patch':
        return this.patch(change.mark, change.set);
      case 'remove':
        return this.drop(change.mark);
      // There is one page, which nobody changes.
      case 'addPage':
      case 'patchPage':
      case 'removePage':
    }
  }

  private patch(id: string, set: MarkPatch): void {
    const placed = this.placed.get(id);
    if (!placed) return;
    const { mark, glue } = placed.glued;
    if (Object.keys(set).every((key) => STAYS.has(key)))
      return this.put({ mark: patchMark(mark, set), glue });
    if (!placed.shown) return;
    const patched = patchMark(placed.shown, set);
    this.put({ mark: patched, glue: this.ground.glueOf(patched) });
  }

  private put(glued: GluedMark): void {
    const { id } = glued.mark;
    const placed = new PlacedMark(glued, this.ground.takeHold(glued.glue));
    placed.measure(this.ground.top);
    this.placed.set(id, placed);
    this.stale.add(id);
  }

  private drop(id: string): void {
    this.placed.delete(id);
    this.stale.add(id);
  }

  private gluedOf(ids: readonly string[]): Map<string, GluedMark | undefined> {
    return new Map(ids.map((id) => [id, this.placed.get(id)?.glued]));
  }

  private settle(): void {
    for (const id of this.stale) {
      const mark = this.placed.get(id)?.shown;
      if (mark) {
        this.shown.set(id, mark);
        this.index.set(mark);
      } else {
        this.shown.delete(id);
        this.index.delete(id);
      }
    }
    this.stale.clear();
  }

  private tell(ids: readonly string[]): void {
    this.status.patch({ canUndo: this.undos.length > 0, canRedo: this.redos.length > 0 });
    this.performed.tell(new Set(ids));
    this.changed.tell(new Set(ids));
  }
}

function markOf(change: Change): string[] {
  if (change.do === 'add') return [change.mark.id];
  return change.do === 'patch' || change.do === 'remove' ? [change.mark] : [];
}
