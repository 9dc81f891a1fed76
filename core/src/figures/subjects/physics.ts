import { choice, figure, flag, number } from '../figure.js';
import type { Pen } from '../pen.js';
import { arcPoints, BLUE, GREEN, INK, ORANGE, PALE, WARM } from '../pen.js';

const SYMBOLS = [
  'resistor',
  'variableResistor',
  'lamp',
  'cell',
  'battery',
  'switchOpen',
  'switchClosed',
  'ammeter',
  'voltmeter',
  'motor',
  'capacitor',
  'inductor',
  'diode',
  'lightDiode',
  'fuse',
  'earth',
] as const;

/** Letters in a circle. */
const LETTERS: Readonly<Record<string, string>> = { ammeter: 'A', voltmeter: 'V', motor: 'M' };
const [FROM, TO, Y] = [45, 115, 50];
const END = 160;

/**
 * Symbols as IEC 60617 describes them (from memory of its parts 2 to 8): a resistor is a rectangle about three times as long as
 * wide, a lamp a circle with a cross, a cell a long and a short stroke of which the long one is positive, a meter a circle with its
 * letter, a fuse a rectangle with the line through it. Both ends lie in the middle of the left and right edge, so that symbols join.
 */
const SIGNS: Readonly<Record<(typeof SYMBOLS)[number], (pen: Pen) => void>> = {
  resistor: (pen) => box(pen),
  variableResistor(pen) {
    box(pen);
    pen.arrow(FROM + 5, Y + 32, TO - 2, Y - 32);
  },
  lamp(pen) {
    leads(pen, 56, 104);
    pen.circle(80, Y, 24);
    const d = 24 * Math.SQRT1_2;
    pen.line([80 - d, Y - d, 80 + d, Y + d]);
    pen.line([80 - d, Y + d, 80 + d, Y - d]);
  },
  cell: (pen) => cells(pen, [74]),
  battery(pen) {
    cells(pen, [58, 88]);
    pen.line([70, Y, 88, Y], { dash: 4 });
  },
  switchOpen: (pen) => lever(pen, 34),
  switchClosed: (pen) => lever(pen, 0),
  ammeter: (pen) => letter(pen, 'ammeter'),
  voltmeter: (pen) => letter(pen, 'voltmeter'),
  motor: (pen) => letter(pen, 'motor'),
  capacitor(pen) {
    leads(pen, 73, 87);
    pen.line([73, Y - 28, 73, Y + 28], { width: 4 });
    pen.line([87, Y - 28, 87, Y + 28], { width: 4 });
  },
  inductor(pen) {
    leads(pen, 40, 120);
    for (let i = 0; i < 4; i++) pen.arc(50 + 20 * i, Y, 10, 180, 360);
  },
  diode: (pen) => diode(pen),
  lightDiode(pen) {
    diode(pen);
    for (const x of [78, 94]) pen.arrow(x, Y - 26, x + 18, Y - 44, { head: 9, width: 1.8 });
  },
  fuse(pen) {
    box(pen);
    pen.line([FROM, Y, TO, Y]);
  },
  earth(pen) {
    pen.line([0, Y, 80, Y, 80, Y + 14]);
    for (const [i, half] of [24, 15, 6].entries())
      pen.line([80 - half, Y + 14 + 9 * i, 80 + half, Y + 14 + 9 * i]);
  },
};

function leads(pen: Pen, from: number, to: number): void {
  pen.line([0, Y, from, Y]);
  pen.line([to, Y, END, Y]);
}

function box(pen: Pen): void {
  leads(pen, FROM, TO);
  pen.rect(FROM, Y - 12, TO - FROM, 24);
}

function cells(pen: Pen, at: readonly number[]): void {
  leads(pen, at[0]!, at.at(-1)! + 12);
  for (const x of at) {
    pen.line([x, Y - 28, x, Y + 28], { width: 2.4 });
    pen.line([x + 12, Y - 14, x + 12, Y + 14], { width: 5 });
  }
  pen.text('+', at[0]! - 10, Y - 22, { size: 18 });
}

function lever(pen: Pen, up: number): void {
  leads(pen, 50, 110);
  pen.circle(50, Y, 4, { fill: INK });
  pen.circle(110, Y, 4, { fill: INK });
  pen.line([50, Y, up > 0 ? 106 : 110, Y - up], { width: 3.4 });
}

function letter(pen: Pen, of: string): void {
  leads(pen, 56, 104);
  pen.circle(80, Y, 24);
  pen.text(LETTERS[of]!, 80, Y, { size: 26 });
}

function diode(pen: Pen): void {
  leads(pen, 60, 100);
  pen.area([60, Y - 22, 60, Y + 22, 100, Y]);
  pen.line([100, Y - 22, 100, Y + 22]);
}

const circuit = figure({
  subject: 'physics',
  width: END,
  height: 100,
  fields: { symbol: choice(SYMBOLS) },
  draw: (pen, { symbol }) => SIGNS[symbol](pen),
});

const radians = (degrees: number) => (degrees * Math.PI) / 180;

const vectors = figure({
  subject: 'physics',
  width: 440,
  height: 360,
  fields: {
    a: number(0, 180, 120),
    angleA: number(0, 359, 20),
    b: number(0, 180, 100),
    angleB: number(0, 359, 80),
  },
  draw(pen, { a, angleA, b, angleB }) {
    const of = (length: number, angle: number) =>
      [length * Math.cos(radians(angle)), -length * Math.sin(radians(angle))] as const;
    const [ax, ay] = of(a, angleA);
    const [bx, by] = of(b, angleB);
    const xs = [0, ax, bx, ax + bx];
    const ys = [0, ay, by, ay + by];
    const [x0, y0] = [
      220 - (Math.min(...xs) + Math.max(...xs)) / 2,
      180 - (Math.min(...ys) + Math.max(...ys)) / 2,
    ];
    const scale = Math.min(
      1,
      400 / (Math.max(...xs) - Math.min(...xs) || 1),
      300 / (Math.max(...ys) - Math.min(...ys) || 1),
    );
    const at = (x: number, y: number) =>
      [220 + (x0 + x - 220) * scale, 180 + (y0 + y - 180) * scale] as const;
    const arrow = (
      from: readonly [number, number],
      to: readonly [number, number],
      colour: string,
      name: string,
    ) => {
      pen.arrow(...from, ...to, { colour, width: 3.4, head: 15 });
      pen.text(name, (from[0] + to[0]) / 2 + 14, (from[1] + to[1]) / 2 - 14, { size: 22, colour });
    };
    pen.line([...at(ax, ay), ...at(ax + bx, ay + by), ...at(bx, by)], { colour: PALE, dash: 6, width: 1.8 });
    arrow(at(0, 0), at(ax, ay), BLUE, 'a');
    arrow(at(0, 0), at(bx, by), GREEN, 'b');
    arrow(at(0, 0), at(ax + bx, ay + by), ORANGE, 'a + b');
    const sum = Math.hypot(ax + bx, ay + by);
    pen.text(`|a + b| = ${sum.toFixed(1)}`, 12, 340, { size: 18, align: 'left', colour: ORANGE });
  },
});

const MOST_TILT = 14;

const seesaw = figure({
  subject: 'physics',
  width: 520,
  height: 220,
  fields: {
    left: number(0, 10, 4),
    leftAt: number(1, 10, 5),
    right: number(0, 10, 2),
    rightAt: number(1, 10, 10),
  },
  draw(pen, { left, leftAt, right, rightAt }) {
    const torque = right * rightAt - left * leftAt;
    const tilt = radians(Math.max(-MOST_TILT, Math.min(MOST_TILT, torque * 2)));
    const at = (along: number, up = 0) =>
      [
        260 + along * Math.cos(tilt) + up * Math.sin(tilt),
        110 + along * Math.sin(tilt) - up * Math.cos(tilt),
      ] as const;
    pen.area([260, 114, 232, 200, 288, 200], { fill: WARM });
    pen.line([...at(-240), ...at(240)], { width: 8 });
    for (let i = -10; i <= 10; i++)
      if (i !== 0) pen.line([...at(i * 23, -5), ...at(i * 23, 5)], { width: 1.6, colour: PALE });
    for (const [mass, place] of [
      [left, -leftAt],
      [right, rightAt],
    ] as const)
      if (mass > 0) {
        const side = 18 + mass * 3;
        const corners = [
          at(place * 23 - side / 2, 4),
          at(place * 23 + side / 2, 4),
          at(place * 23 + side / 2, 4 + side),
          at(place * 23 - side / 2, 4 + side),
        ];
        pen.area(corners.flat(), { fill: BLUE });
        const [x, y] = at(place * 23, 4 + side / 2);
        pen.text(String(mass), x, y, { size: 18, colour: '#ffffff' });
      }
    pen.text(
      `${left} · ${leftAt} ${torque === 0 ? '=' : torque > 0 ? '<' : '>'} ${right} · ${rightAt}`,
      260,
      212,
      { size: 16 },
    );
  },
});

const incline = figure({
  subject: 'physics',
  width: 440,
  height: 300,
  fields: { angle: number(5, 60, 30), weight: number(1, 100, 50), forces: flag(true) },
  draw(pen, { angle, weight, forces }) {
    const tilt = radians(angle);
    const base = Math.min(380, 230 / Math.tan(tilt));
    const [x0, y0] = [30, 280];
    const top = [x0 + base, y0 - base * Math.tan(tilt)] as const;
    pen.area([x0, y0, x0 + base, y0, ...top], { fill: WARM });
    pen.arc(x0, y0, 50, -angle, 0, { width: 1.8 });
    pen.text(`${angle}°`, x0 + 72, y0 - 14, { size: 17 });
    const along = [Math.cos(tilt), -Math.sin(tilt)] as const;
    const out = [-Math.sin(tilt), -Math.cos(tilt)] as const;
    const foot = [
      x0 + (base / Math.cos(tilt)) * 0.55 * along[0],
      y0 + (base / Math.cos(tilt)) * 0.55 * along[1],
    ] as const;
    const corner = (a: number, o: number) => [
      foot[0] + a * along[0] + o * out[0],
      foot[1] + a * along[1] + o * out[1],
    ];
    pen.area([...corner(-28, 0), ...corner(28, 0), ...corner(28, 40), ...corner(-28, 40)], {
      fill: '#ffffff',
    });
    if (!forces) return;
    const [mx, my] = corner(0, 20) as [number, number];
    const long = 90;
    const down = long * Math.sin(tilt);
    const press = long * Math.cos(tilt);
    pen.arrow(mx, my, mx, my + long, { colour: INK, width: 3 });
    pen.arrow(mx, my, mx - down * along[0], my - down * along[1], { colour: ORANGE, width: 3 });
    pen.arrow(mx, my, mx - press * out[0], my - press * out[1], { colour: BLUE, width: 3 });
    const said = (value: number) => value.toFixed(1);
    pen.text(`F = ${weight} N`, 10, 20, { size: 17, align: 'left' });
    pen.text(`${said(weight * Math.sin(tilt))} N`, 10, 44, { size: 17, align: 'left', colour: ORANGE });
    pen.text(`${said(weight * Math.cos(tilt))} N`, 10, 68, { size: 17, align: 'left', colour: BLUE });
  },
});

const wave = figure({
  subject: 'physics',
  width: 560,
  height: 240,
  fields: {
    length: number(40, 280, 160),
    amplitude: number(10, 90, 60),
    phase: number(0, 360, 0, 15),
    measures: flag(true),
  },
  draw(pen, { length, amplitude, phase, measures }) {
    const y = (x: number) => 120 - amplitude * Math.sin(2 * Math.PI * (x / length + phase / 360));
    pen.arrow(10, 120, 550, 120, { colour: PALE, width: 1.6 });
    pen.line(Array.from({ length: 261 }, (_, i) => [10 + i * 2, y(i * 2)]).flat(), {
      colour: BLUE,
      width: 3.4,
    });
    if (!measures) return;
    const crest = length * ((((0.25 - phase / 360) % 1) + 1) % 1);
    const x = 10 + crest;
    pen.line([x, 120 - amplitude, x, 120], { dash: 5, width: 1.6, colour: ORANGE });
    pen.text('A', x + 12, 120 - amplitude / 2, { size: 20, colour: ORANGE });
    if (crest + length <= 520) {
      pen.arrow(x + length / 2, 14, x + length, 14, { colour: GREEN, width: 1.8 });
      pen.arrow(x + length / 2, 14, x, 14, { colour: GREEN, width: 1.8 });
      pen.text('λ', x + length / 2, 28, { size: 20, colour: GREEN });
    }
  },
});

const springBalance = figure({
  subject: 'physics',
  width: 120,
  height: 420,
  fields: { most: choice(['1', '5', '10', '50'], '10'), force: number(0, 50, 4, 0.1) },
  draw(pen, { most, force }) {
    const full = Number(most);
    const pull = Math.min(force, full) / full;
    pen.circle(60, 14, 11);
    pen.rect(34, 26, 52, 250, { fill: '#ffffff' });
    const mark = 60 + pull * 190;
    const coils = Array.from({ length: 19 }, (_, i) => [
      60 + (i === 0 || i === 18 ? 0 : i % 2 ? 10 : -10),
      30 + ((mark - 30) * i) / 18,
    ]);
    pen.line(coils.flat(), { width: 1.8 });
    pen.line([36, mark, 84, mark], { colour: ORANGE, width: 4 });
    for (let i = 0; i <= 10; i++) {
      const y = 60 + i * 19;
      pen.line([86, y, i % 5 === 0 ? 74 : 79, y], { width: 1.6 });
      if (i % 5 === 0) pen.text(String((full * i) / 10), 92, y, { size: 15, align: 'left' });
    }
    pen.text('N', 92, 276, { size: 15, align: 'left' });
    pen.line([60, mark, 60, 300 + pull * 60], { width: 3 });
    pen.line(arcPoints(60, 314 + pull * 60, 14, -90, 150));
    if (force > 0) pen.rect(38, 336 + pull * 50, 44, 30, { fill: BLUE });
  },
});

const thermometer = figure({
  subject: 'physics',
  width: 130,
  height: 420,
  fields: {
    from: number(-50, 50, -20, 10),
    to: number(60, 200, 60, 10),
    temperature: number(-50, 200, 20),
    unit: choice(['°C', '°F']),
  },
  draw(pen, { from, to, temperature, unit }) {
    const at = (value: number) => 350 - ((value - from) / (to - from)) * 310;
    const value = Math.max(from, Math.min(to, temperature));
    pen.rect(52, 24, 22, 330, { fill: '#ffffff', width: 2 });
    pen.rect(57, at(value), 12, 370 - at(value), { fill: ORANGE, edge: false });
    pen.circle(63, 378, 24, { fill: ORANGE });
    const step = (to - from) / 10 > 10 ? 20 : (to - from) / 10 > 5 ? 10 : 5;
    for (let mark = Math.ceil(from / step) * step; mark <= to; mark += step) {
      pen.line([74, at(mark), 84, at(mark)], { width: 1.8 });
      pen.text(String(mark), 90, at(mark), { size: 16, align: 'left' });
    }
    pen.text(unit, 63, 10, { size: 17 });
  },
});

const scales = figure({
  subject: 'physics',
  width: 460,
  height: 300,
  fields: {
    left: { is: 'words', most: 24, at: '2x + 3' },
    right: { is: 'words', most: 24, at: '11' },
    tilt: choice(['even', 'left', 'right']),
  },
  draw(pen, { left, right, tilt }) {
    const sink = tilt === 'even' ? 0 : tilt === 'left' ? -28 : 28;
    pen.area([230, 60, 216, 280, 244, 280], { fill: WARM });
    pen.line([160, 282, 300, 282], { width: 6 });
    pen.line([60, 70 - sink, 400, 70 + sink], { width: 6 });
    pen.circle(230, 70, 8, { fill: INK });
    for (const [x, down, text] of [
      [60, -sink, left],
      [400, sink, right],
    ] as const) {
      const y = 70 + down;
      pen.line([x - 55, y + 110, x, y, x + 55, y + 110], { width: 1.8 });
      pen.area([...arcPoints(x, y + 110, 58, 0, 180)], { fill: '#ffffff' });
      pen.text(text, x, y + 96, { size: Math.min(24, 190 / Math.max(4, text.length)) });
    }
  },
});

export const PHYSICS = { circuit, vectors, lever: seesaw, incline, wave, springBalance, thermometer, scales };
