import type { Element, ElementReading, Row } from './elements.js';
import { byPlace, rowOf, standingCost, tellsRow } from './elements.js';

/** A row of signs as TeX, and what it costs that it is this; less is likelier. */
export interface RowReading {
  tex: string;
  cost: number;
}

interface Item {
  tex: string;
  role: ElementReading['role'];
  sup?: readonly Item[];
  sub?: readonly Item[];
}
interface Level extends Row {
  is: 'row' | 'sup' | 'sub';
  items: readonly Item[];
}
interface State {
  levels: readonly Level[];
  cost: number;
}

const BEAM = 50;
const READINGS = 6;
/** How high powers and indices stand over their base line, in small letters, and how much smaller they are; with how far off they usually are. */
const SUP = { rise: 1.0, spread: 0.42 };
const SUB = { rise: -0.4, spread: 0.28 };
const SMALLER = { factor: 0.72, spread: 0.34 };
/** Powers are less common than what stands beside, indices still less. */
const OPENS = { sup: 1.3, sub: 2 };
const DEEPEST = 3;
/** Relations stand in powers and indices hardly ever. */
const ODD = 2.5;

/** The likeliest readings of what stands beside each other, with powers and indices. */
export function readRow(elements: readonly Element[], usual: number): RowReading[] {
  const sorted = [...elements].sort(byPlace);
  const [first, ...others] = sorted;
  if (!first) return [];
  let states: State[] = first.readings.map((reading) => {
    const row = tellsRow(reading) ? rowOf(first, reading, usual / 1.5) : firstRow(sorted, usual);
    return {
      cost: reading.cost + standingCost(first, reading, row) + beginning(reading),
      levels: [{ ...row, is: 'row', items: [itemOf(reading)] }],
    };
  });
  for (const element of others) {
    states = best(states.flatMap((state) => following(state, element)));
  }
  return states
    .map((state) => {
      const closed = closedTo(state.levels, 0);
      const { items } = closed[0]!;
      return { tex: texOf(items), cost: state.cost + ending(items) };
    })
    .sort((a, b) => a.cost - b.cost)
    .slice(0, READINGS);
}

/** States that cost so much more than the best come to nothing. */
const WORSE = 12;

function best(states: readonly State[]): State[] {
  const most = states.reduce((least, { cost }) => Math.min(least, cost), Infinity) + WORSE;
  return states
    .filter(({ cost }) => cost <= most)
    .sort((a, b) => a.cost - b.cost)
    .slice(0, BEAM);
}

/** The row of the first elements that tell one: most signs on the left stand on the line. */
function firstRow(elements: readonly Element[], usual: number): Row {
  const telling = elements.find(({ readings }) => readings[0] && tellsRow(readings[0]));
  const [element] = elements;
  if (!telling) return rowOf(element!, element!.readings[0]!, usual / 1.5);
  return rowOf(telling, telling.readings[0]!, usual / 1.5);
}

/** All ways to go on with an element: in one of the open rows, as a power, as an index. */
function following(state: State, element: Element): State[] {
  const next: State[] = [];
  for (let depth = state.levels.length - 1; depth >= 0; depth--) {
    const levels = closedTo(state.levels, depth);
    for (const reading of element.readings) {
      next.push(goingOn(state, levels, element, reading));
      if (depth + 1 < DEEPEST) next.push(...opening(state, levels, element, reading));
    }
  }
  return next;
}

/** An element beside the last one of a row. */
function goingOn(state: State, levels: readonly Level[], element: Element, reading: ElementReading): State {
  const level = levels.at(-1)!;
  const isOdd = levels.length > 1 && reading.role === 'relation';
  const cost =
    reading.cost +
    standingCost(element, reading, level) +
    besideCost(level.items, reading) -
    callEnding(level.items, reading.tex) +
    (isOdd ? ODD : 0);
  return { levels: [...levels.slice(0, -1), stretched(level, element, reading)], cost: state.cost + cost };
}

/** An element as the first of a power or an index of the last one of a row. */
function opening(state: State, levels: readonly Level[], element: Element, reading: ElementReading): State[] {
  const level = levels.at(-1)!;
  const last = level.items.at(-1)!;
  if (!carries(last)) return [];
  const row = rowOf(element, reading, level.small * SMALLER.factor);
  return (['sup', 'sub'] as const).flatMap((is) => {
    if (last[is]) return [];
    const isRare = is === 'sub' && last.role !== 'letter' && last.role !== 'large';
    const own = scriptCost(is, level, row, reading) + beginning(reading) + (isRare ? 3 : 0);
    const opened: Level = { ...row, is, items: [itemOf(reading)] };
    return [{ levels: [...levels, opened], cost: state.cost + reading.cost + own }];
  });
}

function scriptCost(is: 'sup' | 'sub', level: Row, row: Row, reading: ElementReading): number {
  const { rise, spread } = is === 'sup' ? SUP : SUB;
  const off = ((level.base - row.base) / level.small - rise) / spread;
  const size = tellsRow(reading) ? Math.log(row.small / level.small / SMALLER.factor) / SMALLER.spread : 0;
  const odd = ['relation', 'close', 'after', 'point'].includes(reading.role) ? 4 : 0;
  return OPENS[is] + off ** 2 / 2 + size ** 2 / 2 + odd;
}

const carries = ({ role }: Item) => ['digit', 'letter', 'close', 'whole', 'large', 'bar'].includes(role);

/** Closes the rows that are open beyond a depth: each becomes a power or index of what it stands at. */
function closedTo(levels: readonly Level[], depth: number): readonly Level[] {
  let open = levels;
  while (open.length - 1 > depth) {
    const closing = open.at(-1)!;
    const outer = open.at(-2)!;
    const last = outer.items.at(-1)!;
    const items = [...outer.items.slice(0, -1), { ...last, [closing.is]: closing.items }];
    open = [...open.slice(0, -2), { ...outer, items }];
  }
  return open;
}

/** A row with one more item; it learns where it stands. */
function stretched(level: Level, element: Element, reading: ElementReading): Level {
  const items = [...level.items, itemOf(reading)];
  if (!tellsRow(reading)) return { ...level, items };
  const own = rowOf(element, reading, level.small);
  return {
    ...level,
    items,
    base: 0.7 * level.base + 0.3 * own.base,
    small: 0.7 * level.small + 0.3 * own.small,
  };
}

const itemOf = ({ tex, role }: ElementReading): Item => ({ tex, role });

/** What it costs that a row begins with something. */
function beginning({ role, tex }: ElementReading): number {
  if (role === 'operator') return tex === '-' ? 0.3 : tex.includes('pm') ? 1 : 4;
  return ['relation', 'close', 'after', 'point'].includes(role) ? 4 : 0;
}

/** What it costs that something stands beside something (common practice, no source). */
function besideCost(items: readonly Item[], { role, tex }: ElementReading): number {
  const last = items.at(-1)!;
  const isOpen = last.role === 'operator' || last.role === 'relation' || last.role === 'open';
  if (isOpen && role === 'operator') return tex === '-' && last.role !== 'operator' ? 0.3 : 4;
  if (isOpen && ['relation', 'close', 'after', 'point'].includes(role)) return 4;
  if (last.role === 'bar' && role === 'bar') return 4;
  if (last.role === 'letter' && role === 'digit') return 2;
  if (last.role === 'point') return role === 'digit' ? 0 : 4;
  if (role === 'point') return last.role === 'digit' ? 0.2 : 4;
  if (role === 'digit' && last.role === 'digit') return last.sup || last.sub ? 3 : -0.4;
  // Nobody writes that there is one of something.
  if (role === 'letter' && last.tex === '1' && items.at(-2)?.role !== 'digit') return 1;
  if (tex === '\\times ' && last.role === 'letter') return 1.5;
  return 0;
}

/** What is odd about a row as a whole, and about the powers and indices in it. */
function ending(items: readonly Item[]): number {
  const inside = items
    .flatMap(({ sup, sub }) => [sup, sub])
    .reduce((sum, row) => sum + (row ? ending(row) : 0), 0);
  const last = items.at(-1)!;
  const count = (role: Item['role']) => items.filter((item) => item.role === role).length;
  const unfinished = last.role === 'operator' || last.role === 'open' ? 4 : 0;
  const brackets = 3 * Math.abs(count('open') - count('close')) + 4 * (count('bar') % 2);
  return inside + unfinished + brackets;
}

/** Names of functions, and how much likelier they are than their letters one by one. */
const CALLS: Readonly<Record<string, number>> = { sin: 4.5, cos: 4.5, tan: 4, log: 9.5, ln: 5, lim: 7 };
const NAMES = Object.keys(CALLS);

/** What it is worth that a letter ends the name of a function. */
function callEnding(items: readonly Item[], tex: string): number {
  const plain = items.slice(-2).map((item) => (item.sup || item.sub ? ' ' : item.tex));
  const name = NAMES.find((each) => [...plain, tex].join('').endsWith(each));
  return name === undefined ? 0 : CALLS[name]!;
}

function texOf(items: readonly Item[]): string {
  const parts = items.map((item) => ({ ...item, scripts: scripts(item) }));
  let tex = '';
  for (let i = 0; i < parts.length; i++) {
    const name = NAMES.find((call) => [...call].every((letter, k) => parts[i + k]?.tex === letter && (k === call.length - 1 || parts[i + k]!.scripts === ''))); // prettier-ignore
    if (name) {
      i += name.length - 1;
      tex += `\\${name}${parts[i]!.scripts} `;
    } else tex += parts[i]!.tex + parts[i]!.scripts;
  }
  return tex;
}

function scripts({ sup, sub }: Item): string {
  return (sub ? `_{${texOf(sub)}}` : '') + (sup ? `^{${texOf(sup)}}` : '');
}
