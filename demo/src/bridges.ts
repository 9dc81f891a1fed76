import type { Sheet } from './sheet.js';
import { COLOURS } from './sheet.js';

/** Where a bridge is drawn: deck from x to x + span at height y. */
interface Place {
  x: number;
  y: number;
  span: number;
}

function banksAndWater(sheet: Sheet, { x, y, span }: Place): void {
  sheet.box(x - 60, y + 70, span + 120, 36, COLOURS.water);
  sheet.box(x - 70, y + 8, 78, 98, COLOURS.stone);
  sheet.box(x + span - 8, y + 8, 78, 98, COLOURS.stone);
}

function deck(sheet: Sheet, { x, y, span }: Place): void {
  sheet.box(x - 70, y - 6, span + 140, 14, COLOURS.steel);
}

export function beamBridge(sheet: Sheet, place: Place): void {
  banksAndWater(sheet, place);
  sheet.box(place.x + place.span / 2 - 12, place.y + 8, 24, 98, COLOURS.stone);
  deck(sheet, place);
}

export function archBridge(sheet: Sheet, place: Place): void {
  const { x, y, span } = place;
  banksAndWater(sheet, place);
  sheet.path(`M${x} ${y + 76} Q${x + span / 2} ${y - 60} ${x + span} ${y + 76}`, COLOURS.steel, 10);
  for (let i = 1; i < 8; i++) {
    const t = i / 8;
    const archY = y + 76 - 2 * t * (1 - t) * 136;
    if (archY > y) sheet.line(x + t * span, y, x + t * span, archY, 4, COLOURS.steel);
  }
  deck(sheet, place);
}

export function trussBridge(sheet: Sheet, place: Place): void {
  const { x, y, span } = place;
  banksAndWater(sheet, place);
  const bays = 6;
  const bay = span / bays;
  const top = y - 70;
  sheet.line(x + bay / 2, top, x + span - bay / 2, top, 7, COLOURS.steel);
  for (let i = 0; i < bays; i++) {
    const left = x + i * bay;
    sheet.line(left, y, left + bay / 2, top, 6, COLOURS.steel);
    sheet.line(left + bay / 2, top, left + bay, y, 6, COLOURS.steel);
  }
  deck(sheet, place);
}

export function suspensionBridge(sheet: Sheet, place: Place): void {
  const { x, y, span } = place;
  banksAndWater(sheet, place);
  const [left, right, top] = [x + span * 0.2, x + span * 0.8, y - 110];
  const middle = (left + right) / 2;
  for (const tower of [left, right]) sheet.box(tower - 8, top, 16, 216, COLOURS.stone);
  sheet.path(
    `M${x - 60} ${y - 4} L${left} ${top} Q${middle} ${y + 70} ${right} ${top} L${x + span + 60} ${y - 4}`,
    COLOURS.steel,
    5,
  );
  for (let i = 1; i < 12; i++) {
    const t = i / 12;
    const cableY = top + 2 * t * (1 - t) * (y + 70 - top);
    const hangerX = left + t * (right - left);
    sheet.line(hangerX, cableY, hangerX, y, 2, COLOURS.steel);
  }
  deck(sheet, place);
}
