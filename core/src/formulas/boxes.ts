import type { TreeNode } from './tree.js';

/** What is drawn of a formula, placed: em of the formula's own letters, y down from its base line. */
export type Item = { x: number; y: number; size: number; colour: string | undefined } & (
  | { is: 'signs'; text: string; font: string }
  /** A bar from its lower left corner. */
  | { is: 'bar'; width: number; height: number }
  /** A drawing in units of its own, `fit` of them to an em across and down; what lies beyond its room is left out. */
  | { is: 'drawing'; data: string; fit: readonly [number, number]; shift: number; room: number; top: number }
  | { is: 'slash'; rises: boolean; width: number; height: number; breadth: number }
);

/** Something laid out from 0 on its base line. */
interface Box {
  width: number;
  items: Item[];
}

interface Surroundings {
  size: number;
  font: string;
  colour: string | undefined;
  isCentred: boolean;
  /** What is as broad as its surroundings fills this much, em of the formula. */
  room: number;
  /** How high the span is that a drawing fills, if it is said. */
  high: number | undefined;
}

/** How far text goes in a font, em. */
export type Advance = (font: string, text: string) => number;

/** Sizes of letters by their number (KaTeX: `sizeMultipliers`). */
const SIZES = [0.5, 0.6, 0.7, 0.8, 0.9, 1, 1.2, 1.44, 1.728, 2.074, 2.488];
const NULL_DELIMITER = 0.12;
const ROOT = { before: 0.2777777778, after: -0.5555555556 };
const PADDING: Readonly<Record<string, number>> = { boxpad: 0.3, 'x-arrow-pad': 0.5 };
const FRAME = 0.04;
/** Where the parts of a brace or a double arrow lie in their room. */
const SHARES: Readonly<Record<string, readonly [number, number]>> = {
  'brace-left': [0, 0.251],
  'brace-center': [0.25, 0.5],
  'brace-right': [0.749, 0.251],
  'halfarrow-left': [0, 0.502],
  'halfarrow-right': [0.498, 0.502],
};
/** The font of a class, as KaTeX's style sheet has it. */
const FONTS: Readonly<Record<string, string>> = {
  mathnormal: 'Math-Italic',
  mathit: 'Main-Italic',
  textit: 'Main-Italic',
  mathrm: 'Main-Regular',
  mainrm: 'Main-Regular',
  textrm: 'Main-Regular',
  mathbf: 'Main-Bold',
  textbf: 'Main-Bold',
  boldsymbol: 'Math-BoldItalic',
  amsrm: 'AMS-Regular',
  mathbb: 'AMS-Regular',
  textbb: 'AMS-Regular',
  mathcal: 'Caligraphic-Regular',
  mathfrak: 'Fraktur-Regular',
  textfrak: 'Fraktur-Regular',
  mathboldfrak: 'Fraktur-Bold',
  mathtt: 'Typewriter-Regular',
  texttt: 'Typewriter-Regular',
  mathscr: 'Script-Regular',
  textscr: 'Script-Regular',
  mathsf: 'SansSerif-Regular',
  textsf: 'SansSerif-Regular',
  mathboldsf: 'SansSerif-Bold',
  textboldsf: 'SansSerif-Bold',
  mathitsf: 'SansSerif-Italic',
  mathsfit: 'SansSerif-Italic',
  'small-op': 'Size1-Regular',
  'large-op': 'Size2-Regular',
  'delim-size1': 'Size1-Regular',
  'delim-size4': 'Size4-Regular',
};
const BARS = new Set(['frac-line', 'overline-line', 'underline-line', 'hline', 'hdashline']);
const CENTRED = new Set(['mfrac', 'op-limits', 'accent', 'mover', 'munder', 'x-arrow', 'col-align-c']);
const UPRIGHT = new Set(['msupsub', 'svg-align', 'col-align-l']);
const LAPS: Readonly<Record<string, number>> = { rlap: 0, llap: 1, clap: 0.5 };

/** The fonts that a tree needs. */
export function fontsIn(node: TreeNode, outer = 'Main-Regular', found = new Set<string>()): Set<string> {
  const font = fontOf(node, outer);
  if (node.text !== undefined) found.add(font);
  for (const child of node.children ?? []) fontsIn(child, font, found);
  return found;
}

/** Lays KaTeX's tree out as its style sheet says. */
export function layOut(root: TreeNode, advance: Advance): Box {
  return new Layout(advance).box(root, {
    size: 1,
    font: 'Main-Regular',
    colour: undefined,
    isCentred: false,
    room: 0,
    high: undefined,
  });
}

class Layout {
  constructor(private readonly advance: Advance) {}

  box(node: TreeNode, outer: Surroundings): Box {
    const around = within(node, outer);
    const { size } = around;
    const has = (name: string) => node.classes?.includes(name) ?? false;
    if (node.style?.color === 'transparent') return { ...this.plain(node, around), items: [] };
    if (node.text !== undefined && node.classes) return this.signs(node, around);
    if (has('nulldelimiter')) return { width: NULL_DELIMITER * size, items: [] };
    if (['strut', 'pstrut', 'vlist-s'].some(has)) return NOTHING;
    if (node.attributes?.height !== undefined && !node.classes) return this.drawing(node, around);
    if (has('vlist-t')) return this.stack(node, around);
    if (node.classes?.some((name) => BARS.has(name)))
      return { width: 0, items: [bar(around, around.room, em(node.style?.borderBottomWidth) * size)] };
    if (has('rule') || has('vertical-separator')) return this.rule(node, around);
    if (has('fbox')) return this.frame(around, em(node.style?.height) * size);
    const lap = node.classes?.find((name) => name in LAPS);
    const share = node.classes?.find((name) => name in SHARES);
    if (share) return this.shared(node, around, SHARES[share]!);
    const box = this.plain(node, around);
    if (lap) return { width: 0, items: moved(box.items, -LAPS[lap]! * box.width, 0) };
    return box;
  }

  /** Signs in a row. Of one sign KaTeX knows the width, of several it does not. */
  private signs(node: TreeNode, { size, font, colour }: Surroundings): Box {
    const text = node.text!.replace(/\u200b/g, '').replace(/\u00a0/g, ' ');
    const isOne = [...text].length === 1;
    const advance = !text ? 0 : isOne && node.width ? node.width : this.advance(font, text);
    const after = Math.max(0, node.italic ?? 0) + em(node.style?.marginRight);
    const [x, y] = [em(node.style?.marginLeft) * size, em(node.style?.top) * size];
    const items: Item[] = text.trim() ? [{ is: 'signs', text, font, size, colour, x, y }] : [];
    return { width: x + (advance + after) * size, items };
  }

  /** Rows over each other, each shifted from the base line. */
  private stack(node: TreeNode, around: Surroundings): Box {
    const { size } = around;
    const rows = node.children![0]!.children![0]!.children!.map((row) => {
      const strut = row.children!.find(({ classes }) => classes?.includes('pstrut'));
      const content = row.children!.filter((child) => child !== strut);
      const lay = (room: number) =>
        content.reduce<Box>(
          (line, child) => beside(line, this.box(child, { ...around, room, high: undefined })),
          NOTHING,
        );
      const shift = (em(row.style?.top) + em(strut?.style?.height)) * size;
      const [left, right] = [em(row.style?.marginLeft) * size, em(row.style?.marginRight) * size];
      return { box: lay(0), lay, shift, left, right, isStretched: content.some(stretches) };
    });
    const width = Math.max(0, ...rows.map(({ box, left, right }) => box.width + left + right));
    const items = rows.flatMap(({ box, lay, shift, left, right, isStretched }) => {
      const room = width - left - right;
      const laid = isStretched ? lay(room) : box;
      const spare = around.isCentred && !isStretched ? (room - laid.width) / 2 : 0;
      return moved(laid.items, left + spare, shift);
    });
    return { width, items };
  }

  /** Children beside each other. */
  private plain(node: TreeNode, around: Surroundings): Box {
    const { size } = around;
    const style = node.style ?? {};
    const padding = PADDING[node.classes?.find((name) => name in PADDING) ?? ''] ?? 0;
    const isRoot = node.classes?.includes('root');
    const before = em(style.paddingLeft) + em(style.marginLeft) + (isRoot ? ROOT.before : 0) + padding;
    const after = em(style.marginRight) + (isRoot ? ROOT.after : 0) + padding;
    const high = style.height === undefined ? around.high : em(style.height) * size;
    const inside = { ...around, high, room: around.room - before * size };
    const start: Box = { width: before * size, items: [] };
    const box = (node.children ?? []).reduce((line, child) => beside(line, this.box(child, inside)), start);
    const least = Math.max(em(style.width), em(style.minWidth)) * size;
    const isWidthless = node.classes?.includes('overlay') || (node.classes?.includes('accent-body') && !node.classes.includes('accent-full')); // prettier-ignore
    return {
      width: isWidthless ? 0 : Math.max(box.width, least) + after * size,
      items: moved(box.items, em(style.left) * size, em(style.top) * size),
    };
  }

  private shared(node: TreeNode, around: Surroundings, [from, share]: readonly [number, number]): Box {
    const box = this.plain(node, { ...around, room: around.room * share });
    return { width: 0, items: moved(box.items, around.room * from, 0) };
  }

  /** A drawing of an SVG element: as broad as its room, cut off where it is broader, or of a width of its own. */
  private drawing({ attributes = {}, children = [] }: TreeNode, around: Surroundings): Box {
    const { size, colour } = around;
    const { height = '', width = '', viewBox = '', preserveAspectRatio: how = '' } = attributes;
    const high = em(height) * size;
    const top = -(around.high ?? high);
    const isFree = width.endsWith('%') || width === '400em';
    const room = isFree ? around.room : em(width) * size;
    const place = { x: 0, y: 0, size, colour };
    const [, , broad = 1, tall = 1] = viewBox.split(' ').map(Number);
    const down = high / tall;
    const across = how === 'none' ? room / broad : down;
    const spare = how === 'none' ? 0 : room - broad * across;
    const shift = how.startsWith('xMax') ? spare : how.startsWith('xMid') ? spare / 2 : 0;
    const items = children.map((child): Item => {
      const { x1, y1, y2, 'stroke-width': breadth } = child.attributes ?? {};
      if (x1 !== undefined) return { ...place, is: 'slash', rises: y1 !== '0' && y2 === '0', width: room, height: high, breadth: em(breadth) * size }; // prettier-ignore
      const data = /\sd=['"]([^'"]*)['"]/.exec(child.toMarkup())?.[1] ?? '';
      return { ...place, is: 'drawing', data, fit: [across, down], shift, room, top };
    });
    return { width: isFree ? 0 : room, items };
  }

  private rule({ style = {} }: TreeNode, around: Surroundings): Box {
    const { size } = around;
    const height = em(style.borderTopWidth ?? style.height) * size;
    const width = em(style.borderRightWidth) * size;
    const up = (em(style.bottom) + em(style.verticalAlign)) * size;
    const isSeparator = style.borderTopWidth === undefined;
    return {
      width: isSeparator ? 0 : width,
      items: moved([bar(around, width, height)], isSeparator ? -width / 2 : 0, -up),
    };
  }

  private frame(around: Surroundings, height: number): Box {
    const { room, size } = around;
    const breadth = FRAME * size;
    const upright = bar(around, breadth, height);
    const level = bar(around, room, breadth);
    return {
      width: 0,
      items: [level, ...moved([level], 0, breadth - height), upright, ...moved([upright], room - breadth, 0)],
    };
  }
}

const NOTHING: Box = { width: 0, items: [] };

function within(node: TreeNode, outer: Surroundings): Surroundings {
  const { classes = [], style } = node;
  const number = (pattern: RegExp) =>
    classes.map((name) => pattern.exec(name)?.[1]).find((found) => found !== undefined);
  const [from, to] = [number(/^reset-size(\d+)$/), number(/^size(\d+)$/)];
  const isSized = from !== undefined && to !== undefined;
  const factor = isSized ? SIZES[Number(to) - 1]! / SIZES[Number(from) - 1]! : 1;
  const isCentred = classes.some((name) => CENTRED.has(name));
  return {
    ...outer,
    size: outer.size * factor,
    font: fontOf(node, outer.font),
    colour: style?.color ?? outer.colour,
    isCentred: isCentred || (outer.isCentred && !classes.some((name) => UPRIGHT.has(name))),
  };
}

function fontOf({ classes = [] }: TreeNode, outer: string): string {
  const own = classes.find((name) => name in FONTS);
  if (own) return FONTS[own]!;
  const size = classes.includes('delimsizing') && classes.find((name) => /^size[1-4]$/.test(name));
  return size ? `Size${size.slice(4)}-Regular` : outer;
}

/** Whether something is as broad as what it stands with: a bar, a root, an arrow over letters. */
function stretches({ classes, attributes, children = [] }: TreeNode): boolean {
  if (classes?.includes('vlist-t')) return false;
  if (classes?.some((name) => BARS.has(name) || name === 'fbox')) return true;
  const { width = '' } = attributes ?? {};
  return width.endsWith('%') || width === '400em' || children.some(stretches);
}

function bar({ size, colour }: Surroundings, width: number, height: number): Item {
  return { is: 'bar', width, height, size, colour, x: 0, y: 0 };
}

function beside(line: Box, next: Box): Box {
  return { width: line.width + next.width, items: [...line.items, ...moved(next.items, line.width, 0)] };
}

function moved(items: readonly Item[], dx: number, dy: number): Item[] {
  return items.map((item) => ({ ...item, x: item.x + dx, y: item.y + dy }));
}

const em = (length: string | undefined) => (length === undefined ? 0 : parseFloat(length) || 0);
