import { boundsOfFlat, pointsOf } from '../../geometry/path.js';
import { polygonArea } from '../../geometry/polygon.js';
import { pointWithin } from '../../answers/pointWithin.js';
import type { Rect } from '../../geometry/rect.js';
import { rectsTouch } from '../../geometry/rect.js';
import type { DrawnCountry, DrawnMap } from '../../maps/index.js';
import { countryNamed, drawnMap, nameOfCountry } from '../../maps/index.js';
import type { AnswerRule } from '../../marks/answerRule.js';
import type { Making } from '../making.js';
import { checkCount, MOVES, taking } from '../making.js';
import type { Paper } from '../paper.js';
import { cellsOf, under } from '../paper.js';
import { ExerciseProblem } from '../problem.js';
import { readItems } from '../rows.js';
import { shuffled } from '../seeded.js';

const SEA = '#dcebf4';
const LAND = '#ffffff';
const BESIDE = '#e6e3da';
const CHOSEN = '#f5cf8a';
/** Most names that are put on a map. */
const MOST = 14;
/** So many are asked for where none are said. */
const ASKED = 8;
/** Most cards side by side. */
const COLUMNS = 7;
/** Smallest letters on a map, of those of the page. */
const LEAST_NAME = 0.55;

/** A country with its name, as it can be asked for. */
interface Part extends DrawnCountry {
  code: string;
  name: string;
}

/** An outline map. Its names are to be read, are shown by a tap, or are not there; what is listed is coloured. */
export function map(making: Making): void {
  const { paper, room, text, level } = making;
  const { drawn, parts } = mapIn(making, room);
  const listed = new Set(listedParts(making, text, parts));
  const names = new Map(parts.map(({ code }) => [code, paper.newId()]));
  putMap(paper, room, drawn, (country) => {
    const part = parts.find(({ code }) => code === country.code);
    const fill = part && listed.has(part) ? CHOSEN : LAND;
    const name = part && names.get(part.code);
    const tap: AnswerRule | undefined =
      level === 'medium' && name
        ? { tap: { steps: [{ do: 'swap', marks: [name] }], once: false } }
        : undefined;
    return { fill, ...(tap && { rule: tap }), ...(part && { alt: part.name }) };
  });
  if (level === 'hard') return;
  const put: Rect[] = [];
  for (const part of largestFirst(parts)) {
    const look = nameLook(paper, part, room);
    // Where all are seen at a time, a name that would lie over another or far beyond a dot of land is left out.
    const isInWay = isLost(part, look.rect) || put.some((rect) => rectsTouch(rect, look.rect));
    if (level === 'easy' && isInWay) continue;
    put.push(look.rect);
    const hidden = level === 'medium';
    paper.words(
      part.name,
      look.rect,
      { size: look.size, bold: hidden },
      { id: names.get(part.code)!, hidden },
    );
  }
}

/** Names that are put on the countries they belong to. */
export function mapNames(making: Making): void {
  const { paper, room, text, level, chance } = making;
  const [above, below] = under(room, 0.78, paper.size);
  const { drawn, parts } = mapIn(making, above);
  const asked = text.trim() === '' ? largestFirst(parts).slice(0, ASKED) : listedParts(making, text, parts);
  checkCount(asked.length, 1, MOST);
  const ids = new Map(asked.map(({ code }) => [code, paper.newId()]));
  const rule = (code: string) => taking([ids.get(code)!], level);
  putMap(paper, above, drawn, ({ code, rings }) => {
    const isPlace = code !== undefined && ids.has(code) && !isSmall(paper, rings[0]!);
    return { fill: LAND, ...(isPlace && { rule: rule(code) }) };
  });
  for (const { code, rings } of asked)
    if (isSmall(paper, rings[0]!))
      paper.shape('ellipse', ringAbout(paper, rings[0]!), {}, { rule: rule(code) });
  const rows = Math.ceil(asked.length / COLUMNS);
  const cells = cellsOf(below, Math.ceil(asked.length / rows), rows, paper.size * 0.4);
  for (const [i, { code, name }] of shuffled(asked, chance).entries()) {
    const cell = cells[i]!;
    const width = Math.min(cell.width, paper.widthOf(name, paper.size) + paper.size * 1.4);
    const height = Math.min(cell.height, paper.size * 1.8);
    paper.card(name, { ...cell, width, height }, { id: ids.get(code)!, rule: MOVES });
  }
}

function mapIn({ map: order, words }: Making, room: Rect): { drawn: DrawnMap; parts: Part[] } {
  const drawn = order && drawnMap(order.atlas, order.view, room);
  if (!drawn) throw new ExerciseProblem('no-country', { text: order?.view ?? '' });
  const parts = drawn.countries.flatMap((country): Part[] => {
    const { code, isPart } = country;
    return code !== undefined && isPart
      ? [{ ...country, code, name: nameOfCountry(code, words.language) }]
      : [];
  });
  return { drawn, parts };
}

/** The countries of a list. Throws ExerciseProblem `no-country` where one is not on the map. */
function listedParts({ words }: Making, text: string, parts: readonly Part[]): Part[] {
  const codes = parts.map(({ code }) => code);
  return [...new Set(readItems(text))].map((item) => {
    const code = countryNamed(item, codes, words.language);
    const part = parts.find((each) => each.code === code);
    if (!part) throw new ExerciseProblem('no-country', { text: item });
    return part;
  });
}

interface CountryLook {
  fill: string;
  rule?: AnswerRule;
  alt?: string;
}

function putMap(
  paper: Paper,
  room: Rect,
  { edge, countries }: DrawnMap,
  lookOf: (of: DrawnCountry) => CountryLook,
) {
  const line = { width: Math.max(0.6, paper.size / 26), line: '#47534d' };
  if (edge) paper.path(edge, { ...line, closed: true, fill: SEA });
  else paper.shape('rectangle', room, { ...line, fill: SEA });
  for (const country of countries) {
    if (!country.isPart) {
      for (const ring of country.rings) paper.path(ring, { ...line, closed: true, fill: BESIDE });
      continue;
    }
    const { fill, rule, alt } = lookOf(country);
    const group = country.rings.length > 1 ? paper.newId() : null;
    for (const [i, ring] of country.rings.entries()) {
      // What takes things is one place; what answers a tap does so on each of its islands.
      const own = rule && (i === 0 || rule.tap) ? { rule } : {};
      paper.path(ring, { ...line, closed: true, fill }, { group, ...own, ...(alt !== undefined && { alt }) });
    }
  }
}

/** Where the name of a country lies, and how large its letters are. */
function nameLook(paper: Paper, { name, rings }: Part, room: Rect): { rect: Rect; size: number } {
  const bounds = boundsOfFlat(rings[0]!, 2);
  const size = Math.min(paper.size, Math.max(paper.size * LEAST_NAME, bounds.width / 6));
  const width = paper.widthOf(name, size) + size;
  const height = paper.lineOf(size) * 1.1;
  const [x, y] = pointWithin(pointsOf(rings[0]!));
  const within = (value: number, from: number, to: number) => Math.max(from, Math.min(to, value));
  const left = within(x - width / 2, room.x, room.x + room.width - width);
  const top = within(y - height / 2, room.y, room.y + room.height - height);
  return { rect: { x: left, y: top, width, height }, size };
}

const isLost = ({ rings }: Part, name: Rect) => boundsOfFlat(rings[0]!, 2).width * 8 < name.width;

const largestFirst = (parts: readonly Part[]) => [...parts].sort((a, b) => sizeOf(b) - sizeOf(a));

const sizeOf = ({ rings }: DrawnCountry) => Math.abs(polygonArea(pointsOf(rings[0]!)));

/** Whether a country is too small to be hit. */
function isSmall(paper: Paper, ring: readonly number[]): boolean {
  const { width, height } = boundsOfFlat(ring, 2);
  return Math.min(width, height) < paper.size * 0.8;
}

function ringAbout(paper: Paper, ring: readonly number[]): Rect {
  const [x, y] = pointWithin(pointsOf(ring));
  const side = paper.size * 1.1;
  return { x: x - side / 2, y: y - side / 2, width: side, height: side };
}
