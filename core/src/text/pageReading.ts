import { boundsOfFlat } from '../geometry/path.js';
import type { Rect } from '../geometry/rect.js';
import { rectContains } from '../geometry/rect.js';
import { markBounds } from '../marks/bounds.js';
import type { Mark } from '../marks/mark.js';
import type { PageWords, PlacedWord } from './pageWords.js';

/** What is read out of a page: a line that is printed on it, or a mark that lies there. */
export type ReadingPart =
  | { kind: 'line'; text: string }
  | { kind: 'mark'; mark: Mark; touched: Deed | undefined }
  | { kind: 'more'; count: number };

/** What a mark does to which words of the page. */
export interface Deed {
  act: 'circled' | 'framed' | 'highlighted' | 'struck' | 'underlined';
  words: string;
}

/** More marks than these are only counted; nobody listens to more. */
const MOST_MARKS = 200;
/** Most letters that are said of the words at a mark. */
const MOST_LETTERS = 120;

/** The words of a page in the order in which they are read, with the marks among them by where they lie. */
export function readingOf(words: PageWords | undefined, marks: readonly Mark[]): ReadingPart[] {
  const lines = words?.lines() ?? [];
  const read = marks.slice(0, MOST_MARKS).map((mark) => {
    const bounds = markBounds(mark);
    const touched = touchedBy(mark, bounds, words);
    return { part: { kind: 'mark', mark, touched } as const, after: lineAt(lines, bounds) };
  });
  const at = (line: number) => read.filter(({ after }) => after === line).map(({ part }) => part);
  const more = marks.length - read.length;
  return [
    ...at(-1),
    ...lines.flatMap(({ text }, i): ReadingPart[] => [{ kind: 'line', text }, ...at(i)]),
    ...(more > 0 ? [{ kind: 'more', count: more } as const] : []),
  ];
}

/** The last line that begins above a mark's middle and, where there are columns, lies over or under it. */
function lineAt(lines: readonly Rect[], { x, y, width, height }: Rect): number {
  const middle = y + height / 2;
  const above = lines.map((line, i) => ({ line, i })).filter(({ line }) => line.y <= middle);
  const inColumn = above.filter(({ line }) => line.x < x + width && line.x + line.width > x);
  return (inColumn.at(-1) ?? above.at(-1))?.i ?? -1;
}

/** To which words a mark was made; undefined where it says itself what it is about. */
function touchedBy(mark: Mark, bounds: Rect, words: PageWords | undefined): Deed | undefined {
  const act = actOf(mark, bounds);
  const touched = words && act ? words.within(act.reach) : [];
  if (!act || touched.length === 0) return undefined;
  const text = touched.map((word) => word.text).join(' ');
  const said = text.length > MOST_LETTERS ? `${text.slice(0, MOST_LETTERS)} …` : text;
  return { act: act.name(touched, bounds), words: said };
}

interface Act {
  /** Words whose middle lies in it are meant. */
  reach: Rect;
  name(words: readonly PlacedWord[], bounds: Rect): Deed['act'];
}

/** What ink or an outline does to words under it; common practice of marking texts, no source. */
function actOf(mark: Mark, bounds: Rect): Act | undefined {
  if (mark.kind === 'shape' && mark.style.fill === null)
    return { reach: bounds, name: () => (mark.form === 'ellipse' ? 'circled' : 'framed') };
  if (mark.kind !== 'stroke') return undefined;
  if (mark.style.nature === 'highlighter') return { reach: bounds, name: () => 'highlighted' };
  if (isClosed(mark.points)) return { reach: bounds, name: () => 'circled' };
  if (bounds.width < 3 * bounds.height) return undefined;
  // A flat line stands for the words above it, or for those it goes through.
  const reach = { ...bounds, y: bounds.y - LINE_REACH, height: bounds.height + LINE_REACH };
  return { reach, name: (touched) => (isThrough(touched, bounds) ? 'struck' : 'underlined') };
}

/** How far above a flat line its words may have their middle, page units. */
const LINE_REACH = 22;

/** Whether a stroke comes back to where it began. */
function isClosed(points: readonly number[]): boolean {
  const { width, height } = boundsOfFlat(points, 4);
  const [x, y] = [points.at(-4)! - points[0]!, points.at(-3)! - points[1]!];
  return Math.min(width, height) > 8 && Math.hypot(x, y) < 0.35 * Math.hypot(width, height);
}

function isThrough(words: readonly PlacedWord[], { y, height }: Rect): boolean {
  const middle = y + height / 2;
  return words.every((word) =>
    rectContains({ ...word, x: 0, width: 1, height: 0.75 * word.height }, 0.5, middle),
  );
}
