import type { Rect } from '../geometry/rect.js';
import { growRect, rectContains } from '../geometry/rect.js';
import { markBounds, markBox } from '../marks/bounds.js';
import type { BoxMark, Mark, MarkOf } from '../marks/mark.js';
import { hasBox } from '../marks/mark.js';
import { byOrder } from '../pages/page.js';

export type Line = MarkOf<'path'>;

/** An idea of a map: a mark with a box, the line to what it hangs on, and what hangs on it. */
export interface Idea {
  mark: BoxMark;
  line: Line | undefined;
  children: Idea[];
  /** What lies in its box or belongs to its group, such as the words or the ink in a bubble. */
  readonly within: readonly Mark[];
}

/** A line between two ideas. */
interface Link {
  line: Line;
  from: string;
  to: string;
}

/** A line that was only drawn to an idea ends no farther from it, page units. */
const NEAR = 14;

/**
 * The ideas of a page: marks with a box that are joined by lines, whether these stick to them or only end there. What hangs on
 * what follows from the lines alone, so that a map is ordinary marks, and what is drawn by hand becomes one.
 */
export class IdeaField {
  readonly ideas: ReadonlyMap<string, BoxMark>;
  private readonly links: readonly Link[];
  private readonly used: ReadonlySet<string>;
  private known: readonly { mark: Mark; bounds: Rect }[] | undefined;

  constructor(private readonly marks: readonly Mark[]) {
    const boxes = marks.filter((mark): mark is BoxMark => hasBox(mark) && !mark.standIn);
    const lines = marks.filter((mark): mark is Line => mark.kind === 'path' && !mark.closed);
    const places = new BoxPlaces(boxes);
    this.links = lines.flatMap((line) => linkOf(line, places));
    const joined = new Set(this.links.flatMap(({ from, to }) => [from, to]));
    this.ideas = new Map(boxes.filter(({ id }) => joined.has(id)).map((mark) => [mark.id, mark]));
    this.used = new Set([...joined, ...this.links.map(({ line }) => line.id)]);
  }

  /** What is neither an idea nor a line between two; seldom asked for, and much on a page that is full of ink. */
  private get others(): readonly { mark: Mark; bounds: Rect }[] {
    this.known ??= this.marks
      .filter(({ id }) => !this.used.has(id))
      .map((mark) => ({ mark, bounds: markBounds(mark) }));
    return this.known;
  }

  /** The map that a mark is part of; undefined where it is none that could be an idea. */
  mapAround(id: string): Idea | undefined {
    const mark = this.marks.find((each) => each.id === id);
    if (!mark || !hasBox(mark)) return undefined;
    const root = this.rootOf(id);
    return this.treeFrom((root === undefined ? undefined : this.ideas.get(root)) ?? mark);
  }

  /** The map that has a mark in its middle. */
  treeFrom(root: BoxMark): Idea {
    const around = new Map<string, Link[]>();
    for (const link of this.links)
      for (const end of [link.from, link.to]) around.set(end, [...(around.get(end) ?? []), link]);
    const seen = new Set([root.id]);
    const top = this.ideaOf(root, undefined);
    for (const queue = [top]; queue.length > 0;) {
      const parent = queue.shift()!;
      for (const { line, from, to } of around.get(parent.mark.id) ?? []) {
        const mark = this.ideas.get(from === parent.mark.id ? to : from);
        if (!mark || seen.has(mark.id)) continue;
        seen.add(mark.id);
        const child = this.ideaOf(mark, line);
        parent.children.push(child);
        queue.push(child);
      }
      parent.children.sort((a, b) => byOrder(a.mark, b.mark));
    }
    return top;
  }

  private ideaOf(mark: BoxMark, line: Line | undefined): Idea {
    const find = () => this.within(mark);
    let within: readonly Mark[] | undefined;
    return {
      ...{ mark, line, children: [] },
      get within() {
        return (within ??= find());
      },
    };
  }

  private within(mark: BoxMark): Mark[] {
    const box = boundsOf(mark);
    const isWithin = ({ mark: other, bounds }: { mark: Mark; bounds: Rect }) =>
      other.id !== mark.id &&
      ((mark.group !== null && other.group === mark.group) ||
        (mark.kind !== 'text' && liesWithin(bounds, box)));
    return this.others.filter(isWithin).map((other) => other.mark);
  }

  /** The middle of the map that an idea is part of: the one that no line leads to; of several, the one with most lines. */
  private rootOf(id: string): string | undefined {
    const part = new Set([id]);
    for (const queue = [id]; queue.length > 0;) {
      const one = queue.shift()!;
      for (const { from, to } of this.links) {
        const other = from === one ? to : to === one ? from : undefined;
        if (other === undefined || part.has(other)) continue;
        part.add(other);
        queue.push(other);
      }
    }
    const count = (one: string) => this.links.filter(({ from, to }) => from === one || to === one).length;
    const led = new Set(this.links.map(({ to }) => to));
    const free = [...part].filter((one) => !led.has(one));
    const candidates = free.length > 0 ? free : [...part];
    return candidates
      .map((one) => ({ one, lines: count(one), mark: this.ideas.get(one) }))
      .filter(({ mark }) => mark)
      .sort(
        (a, b) => b.lines - a.lines || a.mark!.createdAt - b.mark!.createdAt || (a.one < b.one ? -1 : 1),
      )[0]?.one;
  }
}

/** The box of an idea as it lies, not turned. */
export function boundsOf(mark: BoxMark): Rect {
  const { x, y, width, height, rotation } = markBox(mark);
  return rotation === 0 ? { x, y, width, height } : markBounds(mark);
}

function linkOf(line: Line, places: BoxPlaces): Link[] {
  const { points } = line;
  const from = places.at(line.from, points[0]!, points[1]!);
  const to = places.at(line.to, points.at(-2)!, points.at(-1)!);
  return from === undefined || to === undefined || from === to ? [] : [{ line, from, to }];
}

/** Where boxes lie, to find those that lines end at. */
class BoxPlaces {
  private readonly byId: ReadonlyMap<string, BoxMark>;
  private known: readonly { id: string; reach: Rect; size: number }[] | undefined;

  constructor(private readonly boxes: readonly BoxMark[]) {
    this.byId = new Map(boxes.map((mark) => [mark.id, mark]));
  }

  /** The box that a line's end sticks to, else the smallest that it ends at. */
  at(anchor: Line['from'], x: number, y: number): string | undefined {
    if (anchor) return this.byId.get(anchor.mark)?.id;
    return this.places
      .filter(({ reach }) => rectContains(reach, x, y))
      .reduce<{ id?: string; size: number }>((best, one) => (one.size < best.size ? one : best), {
        size: Infinity,
      }).id;
  }

  private get places() {
    this.known ??= this.boxes.map((mark) => {
      const box = boundsOf(mark);
      return { id: mark.id, reach: growRect(box, NEAR), size: box.width * box.height };
    });
    return this.known;
  }
}

const liesWithin = ({ x, y, width, height }: Rect, box: Rect) =>
  rectContains(box, x, y) && rectContains(box, x + width, y + height);

/** All ideas of a map, each before those that hang on it. */
export function ideasOf(root: Idea): Idea[] {
  return [root, ...root.children.flatMap(ideasOf)];
}

/** The words of an idea: its own, those in it, or what it is described by. */
export function wordsOf(idea: Idea): string {
  const { mark } = idea;
  const typed = isTyped(mark) ? mark : idea.within.find(isTyped);
  return typed?.text ?? mark.alt ?? '';
}

const isTyped = (mark: Mark): mark is MarkOf<'text'> | MarkOf<'note'> =>
  mark.kind === 'text' || mark.kind === 'note';

/** Whether a class opens what hangs on an idea by a tap on it. */
export const opensByTap = ({ mark, children }: Idea): boolean =>
  children.length > 0 &&
  children.every((child) =>
    mark.rule?.tap?.steps.some((step) => step.do === 'show' && step.marks.includes(child.mark.id)),
  );

/** Whether what hangs on an idea is folded away. */
export const isFolded = ({ mark, children }: Idea): boolean =>
  children.some((child) => child.mark.folded === mark.id);
