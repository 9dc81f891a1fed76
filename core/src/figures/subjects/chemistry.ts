import { balanced } from '../balance.js';
import { ELEMENTS, shellsOf } from '../elements.js';
import { choice, figure, flag, number, words } from '../figure.js';
import type { Pen } from '../pen.js';
import { BLUE, ORANGE, PALE, WARM, WATER } from '../pen.js';

const element = figure({
  subject: 'chemistry',
  width: 180,
  height: 220,
  fields: { z: number(1, 118, 6) },
  draw(pen, { z }) {
    const one = ELEMENTS[z - 1]!;
    pen.rect(2, 2, 176, 216, { fill: '#ffffff', width: 3 });
    pen.text(String(z), 14, 26, { size: 26, align: 'left' });
    pen.text(one.electronegativity?.toFixed(2) ?? '–', 166, 26, { size: 22, align: 'right', colour: BLUE });
    pen.text(one.symbol, 90, 108, { size: 84 });
    pen.text(one.hasWeight ? String(one.mass) : `[${one.mass}]`, 90, 188, { size: 30 });
  },
});

const atom = figure({
  subject: 'chemistry',
  width: 360,
  height: 360,
  fields: { z: number(1, 118, 11), charge: number(-4, 7, 0) },
  draw(pen, { z, charge }) {
    const shells = shellsOf(z, Math.min(charge, z));
    const [middle, nucleus] = [180, 38];
    const step = (168 - nucleus) / Math.max(3, shells.length);
    for (const [n, count = 0] of shells.entries()) {
      const radius = nucleus + step * (n + 1);
      pen.circle(middle, middle, radius, { colour: PALE, width: 1.4 });
      for (let i = 0; i < count; i++) {
        const angle = (2 * Math.PI * i) / count - Math.PI / 2;
        pen.circle(middle + radius * Math.cos(angle), middle + radius * Math.sin(angle), 5, {
          fill: BLUE,
          edge: false,
        });
      }
    }
    pen.circle(middle, middle, nucleus, { fill: WARM });
    pen.text(ELEMENTS[z - 1]!.symbol, middle, middle - 8, { size: 28 });
    pen.text(`${z}+`, middle, middle + 18, { size: 17 });
    if (charge !== 0) {
      const sign = `${Math.abs(charge) === 1 ? '' : Math.abs(charge)}${charge > 0 ? '+' : '−'}`;
      pen.line([22, 14, 10, 14, 10, 346, 22, 346]);
      pen.line([338, 14, 350, 14, 350, 346, 338, 346]);
      pen.text(sign, 330, 24, { size: 24, align: 'right' });
    }
  },
});

/** Where a vessel's sides are at a height, 0 at its ground to 1 at its top: half its width. */
const SIDES: Readonly<Record<string, (height: number) => number>> = {
  beaker: () => 90,
  cylinder: () => 42,
  flask: (height) => (height < 0.72 ? 110 - (height / 0.72) * 82 : 28),
};
const VESSEL = { left: 120, bottom: 330, height: 300 };
const SLICES = 60;

/** Part of a vessel's height up to which so much of its whole volume goes; round bodies, so by the square of their width. */
function heightOf(part: number, side: (height: number) => number): number {
  const areas = Array.from({ length: SLICES }, (_, i) => side((i + 0.5) / SLICES) ** 2);
  const full = areas.reduce((sum, area) => sum + area, 0) * FULL;
  let left = part * full;
  for (const [i, area] of areas.entries()) {
    if (area >= left) return (i + left / area) / SLICES;
    left -= area;
  }
  return 1;
}

/** A vessel is full a little below its rim. */
const FULL = 0.92;

const vessel = figure({
  subject: 'chemistry',
  width: 300,
  height: 350,
  fields: {
    vessel: choice(['beaker', 'cylinder', 'flask']),
    capacity: choice(['50', '100', '250', '500', '1000'], '250'),
    level: number(0, 1000, 100),
  },
  draw(pen, { vessel: form, capacity, level }) {
    const side = SIDES[form]!;
    const most = Number(capacity);
    const { left, bottom, height } = VESSEL;
    const at = (part: number) => bottom - part * height;
    const edge = (upTo: number) => {
      const steps = Array.from({ length: 31 }, (_, i) => (i / 30) * upTo);
      const up = steps.flatMap((part) => [left + side(part), at(part)]);
      const down = [...steps].reverse().flatMap((part) => [left - side(part), at(part)]);
      return [...up, ...down];
    };
    const filled = Math.min(level, most);
    if (filled > 0) pen.area(edge(heightOf(filled / most, side)), { fill: WATER, edge: false });
    const glass = edge(1);
    pen.line([...glass.slice(62), ...glass.slice(0, 62)], { width: 3.4 });
    for (let i = 1; i <= 10; i++) {
      const part = heightOf(i / 10, side);
      const right = left + side(part);
      const long = i % 2 === 0;
      pen.line([right - (long ? 26 : 14), at(part), right, at(part)], { width: 1.6 });
      if (long) pen.text(String((most * i) / 10), right + 8, at(part), { size: 15, align: 'left' });
    }
    pen.text('ml', left + side(heightOf(1, side)) + 8, at(1), { size: 15, align: 'left' });
  },
});

/** A formula with its numbers below the line. Returns where it ends. */
function formula(pen: Pen, text: string, x: number, y: number, size: number): number {
  let at = x;
  for (const part of text.match(/\d+|[^\d]+/g) ?? []) {
    const isIndex = /\d/.test(part) && at > x;
    const own = isIndex ? size * 0.68 : size;
    pen.text(part, at, isIndex ? y + size * 0.28 : y, { size: own, align: 'left' });
    at += pen.widthOf(part, own);
  }
  return at;
}

const equation = figure({
  subject: 'chemistry',
  width: 640,
  height: 70,
  fields: { equation: words('CH4 + O2 -> CO2 + H2O', 120), isBalanced: flag(true) },
  draw(pen, { equation: text, isBalanced }) {
    const { left, right } = balanced(text);
    const all = [...left, ...right];
    const size = Math.min(34, 1100 / (text.length + all.length * 4));
    let x = 10;
    for (const [i, { count, formula: one }] of all.entries()) {
      if (i === left.length) {
        pen.arrow(x + 6, 35, x + 52, 35);
        x += 66;
      } else if (i > 0) {
        pen.text('+', x + 14, 35, { size });
        x += 30;
      }
      const times = isBalanced ? (count > 1 ? `${count}` : '') : '_';
      pen.text(times, x, 35, { size, align: 'left', colour: ORANGE });
      x = formula(pen, one, x + pen.widthOf(times, size) + (times === '' ? 0 : 5), 35, size) + 4;
    }
  },
});

export const CHEMISTRY = { element, atom, vessel, equation };
