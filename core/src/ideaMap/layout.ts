import type { HierarchyPointNode } from 'd3-hierarchy';
import { hierarchy, tree } from 'd3-hierarchy';

export const IDEA_LAYOUTS = ['sides', 'down', 'round'] as const;
export type IdeaLayout = (typeof IDEA_LAYOUTS)[number];

/** A box of an idea and those that hang on it; page units. */
export interface Box {
  id: string;
  width: number;
  height: number;
  children: readonly Box[];
  /** Whether it stays at the left of the middle, where ideas lie to both sides; undefined where that is open. */
  isLeft?: boolean;
}

/** The middle of a box. */
export type Middle = readonly [x: number, y: number];

/** Between boxes side by side, and between an idea and what hangs on it. */
const GAP = 18;
const REACH = 56;

/**
 * Where ideas lie so that no box lies over another, with the first at 0, 0: middles by ids. The tidy tree of Buchheim, Jünger and Leipert
 * (2002), as d3-hierarchy has it, with the sizes of the boxes.
 */
export function layIdeas(root: Box, layout: IdeaLayout): Map<string, Middle> {
  if (layout === 'round') return laidRound(root);
  if (layout === 'down') return laidAlong(root, root.children, 'down', 1);
  const [left, right] = sidesOf(root);
  return new Map([...laidAlong(root, left, 'sides', -1), ...laidAlong(root, right, 'sides', 1)]);
}

/** What lies at the left and at the right: what has a side keeps it, the rest goes to where there is less. */
export function sidesOf({ children }: Box): [left: Box[], right: Box[]] {
  const sides: [Box[], Box[]] = [[], []];
  const weights = [0, 0];
  const put = (box: Box, side: 0 | 1) => {
    sides[side].push(box);
    weights[side]! += weightOf(box);
  };
  for (const box of children) if (box.isLeft !== undefined) put(box, box.isLeft ? 0 : 1);
  const total = children.reduce((sum, box) => sum + weightOf(box), 0);
  for (const box of children)
    if (box.isLeft === undefined) put(box, weights[1]! + weightOf(box) / 2 <= total / 2 ? 1 : 0);
  const places = new Map(children.map((box, i) => [box, i]));
  for (const side of sides) side.sort((a, b) => places.get(a)! - places.get(b)!);
  return sides;
}

const weightOf = ({ height, children }: Box): number =>
  Math.max(
    height + GAP,
    children.reduce((sum, child) => sum + weightOf(child), 0),
  );

type Node = HierarchyPointNode<Box>;

/** Ideas in rows or columns by how deep they are; `towards` is 1 for down and right. */
function laidAlong(
  root: Box,
  children: readonly Box[],
  layout: 'sides' | 'down',
  towards: 1 | -1,
): Map<string, Middle> {
  const [across, along] = layout === 'down' ? (['width', 'height'] as const) : (['height', 'width'] as const);
  const laid = tree<Box>()
    .nodeSize([1, 1])
    .separation((a, b) => (a.data[across] + b.data[across]) / 2 + (a.parent === b.parent ? GAP : 1.6 * GAP))(
    hierarchy<Box>({ ...root, children }, (box) => [...box.children]),
  );
  const thick = largestByDepth(laid, ({ data }) => data[along]);
  const offset = laid.x;
  const start: number[] = [0];
  for (let depth = 1; depth < thick.length; depth++)
    start[depth] = start[depth - 1]! + (depth === 1 ? thick[0]! / 2 : thick[depth - 1]!) + REACH;
  const places = laid.descendants().map((node): [string, Middle] => {
    const far = node.depth === 0 ? 0 : start[node.depth]! + node.data[along] / 2;
    const side = node.x - offset;
    return [node.data.id, layout === 'down' ? [side, far] : [towards * far, side]];
  });
  return new Map(places);
}

function largestByDepth(laid: Node, sizeOf: (node: Node) => number): number[] {
  const most: number[] = [];
  laid.each((node) => (most[node.depth] = Math.max(most[node.depth] ?? 0, sizeOf(node))));
  return most;
}

const acrossOf = ({ width, height }: Box) => Math.hypot(width, height);

/** Ideas in rings by how deep they are, each ring as wide as its boxes need. */
function laidRound(root: Box): Map<string, Middle> {
  const laid = tree<Box>()
    .size([2 * Math.PI, 1])
    .separation(
      (a, b) => (acrossOf(a.data) + acrossOf(b.data)) / (a.parent === b.parent ? 2 : 1.4) / a.depth,
    )(hierarchy<Box>(root, (box) => [...box.children]));
  const thick = largestByDepth(laid, ({ data }) => acrossOf(data));
  const radii = thick.map(() => 0);
  const rings = thick.map((): Node[] => []);
  laid.each((node) => rings[node.depth]!.push(node));
  for (let depth = 1; depth < thick.length; depth++) {
    const least = radii[depth - 1]! + (thick[depth - 1]! + thick[depth]!) / 2 + GAP;
    radii[depth] = Math.max(least, radiusFor(rings[depth]!));
  }
  return new Map(
    laid.descendants().map(({ x, depth, data }): [string, Middle] => {
      const radius = radii[depth]!;
      return [data.id, [radius * Math.sin(x), -radius * Math.cos(x)]];
    }),
  );
}

/** How large a ring is at least on which no box lies over its neighbour. */
function radiusFor(ring: readonly Node[]): number {
  const sorted = [...ring].sort((a, b) => a.x - b.x);
  return sorted.reduce((most, node, i) => {
    const next = sorted[(i + 1) % sorted.length]!;
    if (next === node) return most;
    const angle = (next.x - node.x + 2 * Math.PI) % (2 * Math.PI);
    const chord = 2 * Math.sin(Math.min(angle, Math.PI) / 2);
    const apart = (acrossOf(node.data) + acrossOf(next.data)) / 2 + GAP;
    return Math.max(most, apart / Math.max(chord, 1e-3));
  }, 0);
}
