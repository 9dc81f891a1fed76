import type { Rect } from '../geometry/rect.js';
import type { Mark, MarkOf } from '../marks/mark.js';
import { applyChanges } from '../ops/apply.js';
import type { LogState } from '../ops/logState.js';
import type { Change } from '../ops/operation.js';
import { TEXT_SIZE } from '../marks/text/textMark.js';
import { isIdea } from './ideaRules.js';

type Note = MarkOf<'note'>;
type Title = MarkOf<'text'>;

/** How often notes were voted for, by id. */
export type Counts = ReadonlyMap<string, number>;

/** Notes that belong together; those that belong to none have no id and stand last. */
export interface Heap {
  id: string | null;
  title: Title | undefined;
  notes: Note[];
}

/** Parts of a note's side: between notes, between groups, the height of a title. */
const GAP = 0.08;
const HEAP_GAP = 0.3;
const TITLE = 0.32;
/** The part of a title's height that its letters take. */
const LETTERS = 0.55;
/** The part of a page's height that is left free for what is asked. */
const HEAD = 0.12;
/** Sides of notes that are tried, page units, each so much smaller than the one before. */
const LARGEST = 200;
const SHRINK = 0.93;
const MARGIN = 16;

/** Where everything stands, by id. */
export type Arrangement = Map<string, Rect>;

/**
 * Where the notes of a page stand: those of a group side by side under its title, in the largest size at which all are on
 * the page, so that none lies over another. With `counts`, what has most votes stands first.
 */
export function arrangeIdeas(
  marks: Iterable<Mark>,
  page: { width: number; height: number },
  counts?: Counts,
): Arrangement {
  const heaps = heapsOf(marks, counts);
  const most = Math.min(LARGEST, page.width / 4);
  for (let side = most; ; side *= SHRINK) {
    const placed = shelved(heaps, side, page);
    if (placed.bottom <= page.height - MARGIN || side < 1) return placed.at;
  }
}

/** What has to be changed so that ideas stand where they should; titles of groups that have no notes any more go. */
export function arrangeChanges(
  marks: readonly Mark[],
  page: { width: number; height: number },
  counts?: Counts,
): Change[] {
  const at = arrangeIdeas(marks, page, counts);
  return marks.flatMap((mark): Change[] => {
    if (!isIdea(mark)) return [];
    const place = at.get(mark.id);
    if (!place) return [{ do: 'remove', mark: mark.id }];
    const set = fieldsAt(mark, place);
    return isAt(mark, set) ? [] : [{ do: 'patch', mark: mark.id, set }];
  });
}

/** The marks of a page with its ideas where they should stand. */
export function arrangedIdeas(
  marks: readonly Mark[],
  page: { width: number; height: number },
  counts?: Counts,
): Mark[] {
  const state: LogState = { pages: new Map(), marks: new Map(marks.map((mark) => [mark.id, mark])) };
  applyChanges(state, arrangeChanges(marks, page, counts));
  return [...state.marks.values()];
}

/** The notes of a page by group, each in its order. */
export function heapsOf(marks: Iterable<Mark>, counts?: Counts): Heap[] {
  const heaps = new Map<string | null, Heap>();
  const heapOf = (id: string | null) => {
    const known = heaps.get(id) ?? { id, title: undefined, notes: [] };
    heaps.set(id, known);
    return known;
  };
  for (const mark of [...marks].sort(byOrder)) {
    if (!isIdea(mark)) continue;
    if (mark.kind === 'note') heapOf(mark.group).notes.push(mark);
    else if (mark.kind === 'text') heapOf(mark.group).title ??= mark;
  }
  const votesOf = ({ id }: Note) => counts?.get(id) ?? 0;
  const all = ({ notes }: Heap) => notes.reduce((sum, one) => sum + votesOf(one), 0);
  const filled = withoutSingles([...heaps.values()]);
  if (counts) {
    for (const { notes } of filled) notes.sort((a, b) => votesOf(b) - votesOf(a));
    filled.sort((a, b) => all(b) - all(a));
  }
  return filled.sort((a, b) => Number(a.id === null) - Number(b.id === null));
}

/** Groups that have notes; a note that is alone and under no title belongs to none. */
function withoutSingles(heaps: readonly Heap[]): Heap[] {
  const isGroup = ({ id, title, notes }: Heap) => id !== null && (notes.length > 1 || title !== undefined);
  const loose = heaps.filter((heap) => !isGroup(heap)).flatMap(({ notes }) => notes);
  const filled = heaps.filter((heap) => isGroup(heap) && heap.notes.length > 0);
  return loose.length > 0 ? [...filled, { id: null, title: undefined, notes: loose.sort(byOrder) }] : filled;
}

/** Groups in rows from left to right, those that belong to none in a row of their own. */
function shelved(heaps: readonly Heap[], side: number, page: { width: number; height: number }) {
  const at: Arrangement = new Map();
  const gap = side * GAP;
  const room = page.width - 2 * MARGIN;
  const fit = Math.max(1, Math.floor((room + gap) / (side + gap)));
  let [x, y, deepest] = [MARGIN, page.height * HEAD, 0];
  for (const heap of heaps) {
    const { id, notes, title } = heap;
    const columns = id === null ? fit : Math.min(fit, Math.ceil(Math.sqrt(notes.length * 1.5)));
    const head = id === null ? 0 : side * TITLE;
    const across = Math.min(columns, notes.length);
    const width = across * (side + gap) - gap;
    const height = head + Math.ceil(notes.length / columns) * (side + gap) - gap;
    if (deepest > 0 && (id === null || x + width > MARGIN + room)) {
      [x, y, deepest] = [MARGIN, y + deepest + side * HEAP_GAP, 0];
    }
    if (title) at.set(title.id, { x, y, width, height: head });
    notes.forEach((note, i) => {
      const [column, row] = [i % columns, Math.floor(i / columns)];
      const place = { x: x + column * (side + gap), y: y + head + row * (side + gap) };
      at.set(note.id, { ...place, width: side, height: side });
    });
    x += width + side * HEAP_GAP;
    deepest = Math.max(deepest, height);
  }
  return { at, bottom: y + deepest };
}

const byOrder = (a: Mark, b: Mark) =>
  a.order === b.order ? (a.id < b.id ? -1 : 1) : a.order < b.order ? -1 : 1;

/** Hundredths of a page unit are not seen. */
const rounded = (value: number) => Math.round(value * 100) / 100;

/** The fields of a note or title that stands at a place. */
function fieldsAt(mark: Note | Title, { x, y, width, height }: Rect) {
  const at = { x: rounded(x), y: rounded(y), width: rounded(width), rotation: 0 };
  return mark.kind === 'note'
    ? { ...at, height: rounded(height) }
    : { ...at, style: { size: Math.max(TEXT_SIZE.min, rounded(height * LETTERS)) } };
}

function isAt(mark: object, fields: object): boolean {
  const now = mark as Record<string, unknown>;
  return Object.entries(fields).every(([key, value]) =>
    typeof value === 'number'
      ? Math.abs((now[key] as number) - value) < 0.02
      : isAt(now[key] as object, value as object),
  );
}
