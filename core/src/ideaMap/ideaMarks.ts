import type { Mark, MarkPatch } from '../marks/mark.js';
import type { SharedFields } from '../marks/shared.js';
import { plainText } from '../marks/text/textMark.js';
import { textLayout } from '../marks/text/textLayout.js';
import type { Anchor } from '../marks/path/pathMark.js';
import type { IdeaLayout } from './layout.js';

/** What a mark has before it is something. */
export type Common = Pick<
  SharedFields,
  'id' | 'page' | 'author' | 'space' | 'order' | 'locked' | 'group' | 'alt' | 'createdAt' | 'pane'
>;

/** Grounds of branches and the colours of their lines: Okabe and Ito 2008, darkened, and tints of them. */
export const BRANCHES = [
  { ground: '#cfe6f5', line: '#0072b2' },
  { ground: '#fbdfc4', line: '#c14f00' },
  { ground: '#cdebe1', line: '#007a5e' },
  { ground: '#f3dbe8', line: '#a8477e' },
  { ground: '#fbf3bd', line: '#7d6a00' },
  { ground: '#e4e0d3', line: '#4a4a42' },
] as const;
export type Branch = (typeof BRANCHES)[number];

const ROOT = { ground: '#12352a', ink: '#ffffff', size: 28 };
const INK = '#1c241f';
/** Letters of the first ideas round the middle, and of those beyond. */
const SIZES = [22, 18] as const;
/** Room beside the words, and most width before they break; page units. */
const [PAD, WIDEST] = [12, 260];

/** The branch that an idea of a ground is part of. */
export const branchOf = (mark: Mark): Branch | undefined =>
  mark.kind === 'text' ? BRANCHES.find(({ ground }) => ground === mark.style.background) : undefined;

/** Whether a mark looks as the middle of a map does. */
export const isMiddle = (mark: Mark): boolean =>
  mark.kind === 'text' && mark.style.background === ROOT.ground && mark.style.colour === ROOT.ink;

/** An idea as words on a ground, with its middle at a place. `depth` is 0 in the middle of a map. */
export function ideaMark(
  common: Common,
  text: string,
  { depth, branch, at }: { depth: number; branch: Branch | undefined; at: readonly [number, number] },
): Extract<Mark, { kind: 'text' }> {
  const { size, bold } = lettersAt(depth);
  const style = {
    ...plainText(size, bold),
    align: 'center' as const,
    colour: depth === 0 ? ROOT.ink : INK,
    background: depth === 0 ? ROOT.ground : (branch ?? BRANCHES[0]).ground,
  };
  const mark = {
    ...common,
    kind: 'text' as const,
    x: 0,
    y: 0,
    width: 0,
    rotation: 0,
    text: text === '' ? ' ' : text,
    style,
  };
  const width = widthFor(mark);
  const { height } = textLayout({ ...mark, width });
  return { ...mark, width, x: round(at[0] - width / 2), y: round(at[1] - height / 2) };
}

/** How large the words of an idea are that is so many steps from the middle. */
const lettersAt = (depth: number) => ({
  size: depth === 0 ? ROOT.size : SIZES[Math.min(depth, SIZES.length) - 1]!,
  bold: depth < 2,
});

/** The look of an idea at another place of a map, with its middle where it was; undefined where it has another look of its own. */
export function looksPatch(mark: Mark, depth: number, branch: Branch | undefined): MarkPatch | undefined {
  const own = branchOf(mark);
  if (mark.kind !== 'text' || !own) return undefined;
  const look = { ...lettersAt(depth), background: (branch ?? own).ground };
  const style = { ...mark.style, ...look };
  const width = widthFor({ ...mark, style });
  const down = textLayout({ ...mark, style, width }).height - textLayout(mark).height;
  return { style: look, width, x: round(mark.x + (mark.width - width) / 2), y: round(mark.y - down / 2) };
}

/** As wide as an idea is for its words. */
export function widthFor(mark: Pick<Extract<Mark, { kind: 'text' }>, 'text' | 'style' | 'parts'>): number {
  const { lines } = textLayout({ ...mark, width: 1e5 });
  const widest = Math.max(...lines.map(({ runs }) => runs.reduce((sum, run) => sum + run.width, 0)), 20);
  return round(Math.min(WIDEST, widest + 2 * PAD));
}

/** Other words in an idea, with the middle where it was. */
export function textPatch(mark: Extract<Mark, { kind: 'text' }>, text: string): MarkPatch {
  const words = text === '' ? ' ' : text;
  const width = widthFor({ text: words, style: mark.style });
  return {
    text: words,
    ...(mark.parts && { parts: [] }),
    width,
    x: round(mark.x + (mark.width - width) / 2),
  };
}

interface Rect {
  x: number;
  y: number;
  width: number;
  height: number;
}

/** Where a line from one box to another sticks, as a layout has it; undefined for the sides that face each other. */
function anchorsFor(layout: IdeaLayout | undefined, a: Rect, b: Rect): [[number, number], [number, number]] {
  const [dx, dy] = [b.x + b.width / 2 - a.x - a.width / 2, b.y + b.height / 2 - a.y - a.height / 2];
  const isUpright = layout === 'down' || (layout !== 'sides' && Math.abs(dy) > Math.abs(dx));
  if (isUpright)
    return dy >= 0
      ? [
          [0.5, 1],
          [0.5, 0],
        ]
      : [
          [0.5, 0],
          [0.5, 1],
        ];
  return dx >= 0
    ? [
        [1, 0.5],
        [0, 0.5],
      ]
    : [
        [0, 0.5],
        [1, 0.5],
      ];
}

/** How a line runs from an idea to one that hangs on it: a bow between the sides that face each other. */
export function lineCourse(
  layout: IdeaLayout | undefined,
  from: Rect & { id: string },
  to: Rect & { id: string },
): { course: 'cubic'; points: number[]; from: Anchor; to: Anchor } {
  const [[ax, ay], [bx, by]] = anchorsFor(layout, from, to);
  const a = [from.x + from.width * ax, from.y + from.height * ay] as const;
  const b = [to.x + to.width * bx, to.y + to.height * by] as const;
  const middle = [(a[0] + b[0]) / 2, (a[1] + b[1]) / 2] as const;
  const controls = ax === 0.5 ? [a[0], middle[1], b[0], middle[1]] : [middle[0], a[1], middle[0], b[1]];
  return {
    course: 'cubic',
    points: [...a, ...controls, ...b].map(round),
    from: { mark: from.id, x: ax, y: ay },
    to: { mark: to.id, x: bx, y: by },
  };
}

export const lineStyle = (branch: Branch | undefined, depth: number) => ({
  line: (branch ?? BRANCHES[0]).line,
  width: depth === 1 ? 4 : 2.5,
  dash: 'solid' as const,
  fill: null,
  opacity: 1,
});

export function round(value: number): number {
  return Math.round(value * 100) / 100;
}
