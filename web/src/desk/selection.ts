import type { AlignEdge, Change, Mark, MarkPatch, Rect, Transform } from '@doodla/core';
import {
  alignMoves,
  boundsOf,
  copiesOf,
  distributeMoves,
  followAnchors,
  orderOnTop,
  reorderedTo,
  partsUnder,
  patchMark,
  transformPatch,
} from '@doodla/core';
import { nanoid } from 'nanoid';
import { Store } from '@doodla/core/client';
import type { Preview } from '../canvas/preview';
import { copyText } from '../secure/clipboard';
import type { Desk } from './desk';
import { t } from '../words';

/** How far a copy lies from its original, page units. */
const COPY_OFFSET = 24;

/** What was cut or copied, shared by all tabs of this browser. */
const CLIPBOARD = 'doodla.clipboard';

/** What gives a whole mark a style; the parts of a text take it on. */
function restyled(mark: Mark, style: NonNullable<MarkPatch['style']>): MarkPatch {
  const parts = mark.kind === 'text' && mark.parts;
  return parts ? { style, parts: partsUnder(parts, style) } : { style };
}

/** The selected marks of the shown page, and what can be done with them. */
export class Selection {
  readonly ids = new Store<ReadonlySet<string>>(new Set());

  constructor(
    private readonly desk: Pick<
      Desk,
      'maySelect' | 'mayTouch' | 'newMark' | 'pageId' | 'target' | 'targetMarks'
    >,
  ) {}

  has(id: string): boolean {
    return this.ids.get().has(id);
  }

  /** Selects marks instead of those selected, or together with them. */
  select(ids: readonly string[], add = false): void {
    this.ids.set(new Set(add ? [...this.ids.get(), ...ids] : ids));
  }

  clear(): void {
    if (this.ids.get().size > 0) this.ids.set(new Set());
  }

  /** The selected marks that are still there, lowest first. */
  marks(): Mark[] {
    return (this.desk.targetMarks?.all() ?? []).filter((mark) => this.has(mark.id));
  }

  bounds(): Rect | undefined {
    return boundsOf(this.marks());
  }

  selectAll(): void {
    const marks = this.desk.targetMarks?.all() ?? [];
    this.select(marks.filter((mark) => this.desk.maySelect(mark)).map(({ id }) => id));
  }

  /** Selects the next mark above or below the selected one, round and round. */
  step(by: 1 | -1): void {
    const marks = (this.desk.targetMarks?.all() ?? []).filter((mark) => this.desk.maySelect(mark));
    if (marks.length === 0) return;
    const at = marks.findIndex((mark) => this.has(mark.id));
    const next = at < 0 ? (by > 0 ? 0 : marks.length - 1) : (at + by + marks.length) % marks.length;
    this.select([marks[next]!.id]);
  }

  /** How the page would look after a transform. */
  preview(transform: Transform): Preview {
    const marks = this.movable().map((mark) => patchMark(mark, transformPatch(mark, transform)));
    return { marks, hidden: new Set(marks.map(({ id }) => id)) };
  }

  apply(transform: Transform): void {
    this.patchAll((mark) => transformPatch(mark, transform));
  }

  remove(): void {
    const changes = this.movable().map((mark): Change => ({ do: 'remove', mark: mark.id }));
    if (changes.length > 0 && this.desk.target.perform(changes) !== undefined) this.clear();
  }

  /** Puts copies beside the originals, or in a row or ring of `count`. */
  duplicate(transforms: readonly Transform[] = [{ kind: 'move', dx: COPY_OFFSET, dy: COPY_OFFSET }]): void {
    const originals = this.marks();
    const copies = transforms.flatMap((transform) =>
      this.renewed(originals.map((mark) => patchMark(mark, transformPatch(mark, transform)))),
    );
    this.put(copies);
  }

  /** Repeats in a row to the right, a gap apart, so that there are `count` in all. */
  repeatInRow(count: number): void {
    const bounds = this.bounds();
    if (!bounds) return;
    const step = bounds.width + COPY_OFFSET / 2;
    this.duplicate(
      Array.from({ length: count - 1 }, (_, i) => ({ kind: 'move', dx: step * (i + 1), dy: 0 })),
    );
  }

  /** Repeats in a ring whose middle lies below, so that there are `count` in all. */
  repeatInRing(count: number): void {
    const bounds = this.bounds();
    if (!bounds) return;
    const reach = Math.max(bounds.height * 1.2, (bounds.width * count) / (2 * Math.PI) + bounds.height / 2);
    const [x, y] = [bounds.x + bounds.width / 2, bounds.y + bounds.height / 2 + reach];
    this.duplicate(
      Array.from({ length: count - 1 }, (_, i) => ({ kind: 'turn', degrees: ((i + 1) * 360) / count, x, y })),
    );
  }

  copy(): void {
    const marks = this.marks();
    if (marks.length === 0) return;
    // Other programs get the words; by them a paste knows that the marks are meant.
    const words = marks.flatMap((mark) => ('text' in mark ? [mark.text] : [])).join('\n');
    const text = words === '' ? t('desk.marks', { count: marks.length }) : words;
    localStorage.setItem(CLIPBOARD, JSON.stringify({ text, marks }));
    // Where the browser does not let us, a paste finds the marks all the same.
    copyText(text).catch(() => undefined);
  }

  cut(): void {
    this.copy();
    this.remove();
  }

  /**
   * Puts what was copied on the shown page, a little aside where it came from this one. Does
   * nothing and returns false where the system's clipboard holds other text than what was copied.
   */
  paste(systemText: string): boolean {
    const stored = localStorage.getItem(CLIPBOARD);
    if (stored === null) return false;
    const { text, marks } = JSON.parse(stored) as { text: string; marks: Mark[] };
    if (systemText !== '' && systemText.trim() !== text.trim()) return false;
    const here = marks.some((mark) => mark.page === this.desk.pageId.get());
    const offset = here ? COPY_OFFSET : 0;
    const moved = marks.map((mark) =>
      patchMark(mark, transformPatch(mark, { kind: 'move', dx: offset, dy: offset })),
    );
    this.putCopies(moved);
    return true;
  }

  nudge(dx: number, dy: number): void {
    this.apply({ kind: 'move', dx, dy });
  }

  align(edge: AlignEdge): void {
    this.moveEach(alignMoves(this.marks(), edge));
  }

  distribute(along: 'x' | 'y'): void {
    this.moveEach(distributeMoves(this.marks(), along));
  }

  /** Moves in the pile: to an end of it, or past the next mark. */
  reorder(to: 'front' | 'back' | 'up' | 'down'): void {
    const orders = reorderedTo(this.marks(), this.desk.targetMarks?.all() ?? [], to);
    if (orders.length === 0) return;
    this.patchAll(() => ({ order: orders.shift()! }));
  }

  group(): void {
    const group = nanoid();
    this.patchAll(() => ({ group }));
  }

  ungroup(): void {
    this.patchAll(() => ({ group: null }));
  }

  /** Locks or unlocks; locked marks stay selected, so that they can be unlocked. */
  setLocked(locked: boolean): void {
    const changes = this.marks().map((mark): Change => ({ do: 'patch', mark: mark.id, set: { locked } }));
    if (changes.length > 0) this.desk.target.perform(changes);
  }

  /** Changes how the selected marks look, as far as their kinds have such a thing. */
  restyle(style: Record<string, unknown>): void {
    this.patchAll((mark) => {
      const own = Object.fromEntries(Object.entries(style).filter(([key]) => key in mark.style));
      return Object.keys(own).length > 0 ? restyled(mark, own) : undefined;
    });
  }

  /** Gives the selected marks a colour: that of their line where they have one. */
  recolour(colour: string): void {
    this.patchAll((mark) => {
      const { style } = mark;
      if ('colour' in style) return restyled(mark, { colour });
      if (!('line' in style)) return undefined;
      return { style: { [style.line === null ? 'fill' : 'line']: colour } };
    });
  }

  /** Changes one of the selected marks. */
  patchOne(id: string, set: MarkPatch): void {
    this.patchAll((mark) => (mark.id === id ? set : undefined));
  }

  setAlt(alt: string | null): void {
    this.patchAll(() => ({ alt }));
  }

  private movable(): Mark[] {
    return this.marks().filter((mark) => this.desk.mayTouch(mark));
  }

  private moveEach(moves: readonly { dx: number; dy: number }[]): void {
    const byId = new Map(this.marks().map((mark, i) => [mark.id, moves[i]!]));
    this.patchAll((mark) => transformPatch(mark, { kind: 'move', ...byId.get(mark.id)! }));
  }

  /** Patches the selected marks, and brings lines that stick to them along. */
  private patchAll(patchOf: (mark: Mark) => MarkPatch | undefined): void {
    const patched = new Map<string, Mark>();
    const changes: Change[] = [];
    for (const mark of this.movable()) {
      const set = patchOf(mark);
      if (!set) continue;
      patched.set(mark.id, patchMark(mark, set));
      changes.push({ do: 'patch', mark: mark.id, set });
    }
    if (changes.length > 0) this.desk.target.perform([...changes, ...this.followers(patched)]);
  }

  private followers(patched: ReadonlyMap<string, Mark>): Change[] {
    const all = this.desk.targetMarks?.all() ?? [];
    const changes: Change[] = [];
    for (const line of all) {
      if (line.kind !== 'path' || patched.has(line.id) || !this.desk.mayTouch(line)) continue;
      if (!patched.has(line.from?.mark ?? '') && !patched.has(line.to?.mark ?? '')) continue;
      const set = followAnchors(line, (id) => patched.get(id) ?? this.desk.target.state.marks.get(id));
      if (set) changes.push({ do: 'patch', mark: line.id, set });
    }
    return changes;
  }

  /** Puts copies of marks from anywhere on the shown page, above all others. Returns whether that could be done. */
  putCopies(marks: readonly Mark[]): boolean {
    return this.put(this.renewed(marks));
  }

  /** Copies with ids, groups and an author of their own, on the shown page, above all others. */
  private renewed(marks: readonly Mark[]): Mark[] {
    const common = this.desk.newMark();
    if (!common) return [];
    let { order } = common;
    return copiesOf(marks, nanoid).map((copy): Mark => {
      const { id, group, alt, pane } = copy;
      const own = { ...common, id, order, group, alt, ...(pane !== undefined && { pane }) };
      order = orderOnTop([order]);
      const renewed = { ...copy, ...own };
      delete renewed.credit;
      return renewed;
    });
  }

  private put(marks: readonly Mark[]): boolean {
    if (marks.length === 0) return false;
    if (this.desk.target.perform(marks.map((mark) => ({ do: 'add', mark }))) === undefined) return false;
    this.select(marks.map(({ id }) => id));
    return true;
  }
}
