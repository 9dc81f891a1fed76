import { ELEMENTS } from '../../figures/elements.js';
import type { Element } from '../../figures/elements.js';
import type { Rect } from '../../geometry/rect.js';
import type { AnswerRule } from '../../marks/answerRule.js';
import type { Making } from '../making.js';
import { checkCount, MOVES } from '../making.js';
import type { Paper } from '../paper.js';
import { BOARD, cellsOf, columnsFor, INK } from '../paper.js';
import { readItems } from '../rows.js';

/** Grounds by state: each also has a sign, as colours alone say nothing to some. */
const STATES = { solid: ['#ffffff', ''], liquid: ['#f5cf8a', '~'], gas: ['#abdaf4', '°'] } as const;

/** The elements, each a tile of its own, which can be given a rule, coloured or asked for. Those that are listed are framed. */
export function elements({ paper, room, text }: Making): void {
  const framed = new Set(text.split(/[\s,;]+/));
  const [w, h] = [room.width / 18, room.height / 9.6];
  for (const element of ELEMENTS) {
    const { column, row } = placeOf(element);
    const tile = { x: room.x + column * w, y: room.y + row * h, width: w, height: h };
    putTile(paper, element, tile, framed.has(element.symbol));
  }
}

/** Elements below the table lie in two rows of fourteen. */
function placeOf({ z, group, period }: Element): { column: number; row: number } {
  if (group !== undefined) return { column: group - 1, row: period - 1 };
  return { column: 2 + z - (period === 6 ? 57 : 89), row: period + 1.4 };
}

function putTile(paper: Paper, element: Element, tile: Rect, isFramed: boolean): void {
  const { symbol, z, mass, hasWeight, state, electronegativity } = element;
  const [fill, sign] = state ? STATES[state] : (['#e4e0d3', '?'] as const);
  const group = paper.newId();
  const width = isFramed ? paper.size / 4 : paper.size / 22;
  paper.shape(
    'rectangle',
    tile,
    { fill, width, line: isFramed ? BOARD : INK },
    { group, alt: `${z} ${symbol}` },
  );
  const part = (from: number, to: number) => ({
    ...tile,
    y: tile.y + tile.height * from,
    height: tile.height * (to - from),
  });
  const small = { size: tile.height * 0.18 };
  paper.words(`${z}${sign}`, { ...part(0, 0.28), width: tile.width * 0.55 }, small, { group });
  const right = { ...part(0, 0.28), x: tile.x + tile.width * 0.5, width: tile.width * 0.5 };
  if (electronegativity !== undefined) paper.words(String(electronegativity), right, small, { group });
  paper.words(symbol, part(0.22, 0.74), { size: tile.height * 0.34, bold: true }, { group });
  paper.words(hasWeight ? String(mass) : `[${mass}]`, part(0.72, 1), small, { group });
}

type Point = readonly [number, number];

/** The seven pieces of a square of four: corners in quarters of its side (common practice, no source). */
export const TANGRAM: readonly Point[][] = [
  [
    [0, 0],
    [4, 0],
    [2, 2],
  ],
  [
    [0, 0],
    [2, 2],
    [0, 4],
  ],
  [
    [4, 2],
    [4, 4],
    [2, 4],
  ],
  [
    [4, 0],
    [4, 2],
    [3, 1],
  ],
  [
    [3, 1],
    [4, 2],
    [3, 3],
    [2, 2],
  ],
  [
    [2, 2],
    [3, 3],
    [1, 3],
  ],
  [
    [0, 4],
    [1, 3],
    [3, 3],
    [2, 4],
  ],
];
const PIECE_COLOURS = ['#f5cf8a', '#abdaf4', '#80cfb9', '#f8f1a1', '#e5bcd3', '#eaaf80', '#80b8d8'];

/** A square cut into seven pieces that are moved about. */
export function tangram({ paper, room }: Making): void {
  const side = Math.min(room.height, room.width * 0.5);
  const q = side / 4;
  for (const [i, corners] of TANGRAM.entries()) {
    const points = corners.flatMap(([x, y]) => [room.x + x * q, room.y + y * q]);
    paper.path(
      points,
      { closed: true, fill: PIECE_COLOURS[i]!, width: paper.size / 14 },
      { rule: MOVES, alt: String(i + 1) },
    );
  }
}

/** Blocks of one length of side, of which any number are pulled from piles (common practice, no source). */
export function patternBlocks({ paper, room }: Making): void {
  const side = Math.min(room.width / 12, room.height / 7);
  const h = (side * Math.sqrt(3)) / 2;
  const shapes: Point[][] = [
    [
      [0, h],
      [side / 2, 0],
      [(3 * side) / 2, 0],
      [2 * side, h],
      [(3 * side) / 2, 2 * h],
      [side / 2, 2 * h],
    ],
    [
      [0, h],
      [side / 2, 0],
      [(3 * side) / 2, 0],
      [2 * side, h],
    ],
    [
      [0, h],
      [side / 2, 0],
      [(3 * side) / 2, 0],
      [side, h],
    ],
    [
      [0, h],
      [side / 2, 0],
      [side, h],
    ],
    [
      [0, 0],
      [side, 0],
      [side, side],
      [0, side],
    ],
    [
      [0, side / 2],
      [side * Math.cos(Math.PI / 6), 0],
      [2 * side * Math.cos(Math.PI / 6), side / 2],
      [side * Math.cos(Math.PI / 6), side],
    ],
  ];
  const rule: AnswerRule = { moves: { movement: { how: 'freely' }, copies: true } };
  for (const [i, cell] of cellsOf(
    { ...room, height: 2.2 * h },
    shapes.length,
    1,
    paper.size * 0.5,
  ).entries()) {
    const points = shapes[i]!.flatMap(([x, y]) => [cell.x + x, cell.y + y]);
    paper.path(
      points,
      { closed: true, fill: PIECE_COLOURS[i]!, width: paper.size / 14 },
      { rule, alt: String(i + 1) },
    );
  }
}

const MOST_TILES = 60;

/** A tile for each letter of what is typed, to be moved about. */
export function letterTiles({ paper, room, text }: Making): void {
  const letters = [...text].filter((letter) => letter.trim() !== '');
  checkCount(letters.length, 1, MOST_TILES);
  const columns = columnsFor(letters.length, { ...room, height: room.height * 0.5 }, 1);
  const side = Math.min(room.width / columns - paper.size * 0.3, paper.size * 3.4);
  for (const [i, letter] of letters.entries()) {
    const x = room.x + (i % columns) * (side + paper.size * 0.3);
    const y = room.y + Math.floor(i / columns) * (side + paper.size * 0.3);
    paper.card(letter, { x, y, width: side, height: side }, { rule: MOVES });
  }
}

const MOST_PLAYERS = 15;

/** Numbered players of two teams, that a class moves over a pitch; `count` are in each. */
export function players({ paper, room, text, count }: Making): void {
  checkCount(count, 1, MOST_PLAYERS);
  const [one = 'A', other = 'B'] = text.trim() === '' ? [] : readItems(text);
  const side = Math.min(paper.size * 2, room.width / (MOST_PLAYERS + 2));
  for (const [row, [name, fill]] of (
    [
      [one, '#abdaf4'],
      [other, '#f5cf8a'],
    ] as const
  ).entries()) {
    const y = room.y + row * side * 1.6;
    for (let i = 0; i < count; i++) {
      const group = paper.newId();
      const rect = { x: room.x + i * side * 1.15, y, width: side, height: side };
      // Teams differ by form as well.
      paper.shape(
        row === 0 ? 'ellipse' : 'rectangle',
        rect,
        { fill },
        { group, rule: MOVES, alt: `${name} ${i + 1}` },
      );
      paper.words(String(i + 1), rect, { size: side * 0.45, bold: true }, { group });
    }
  }
}
