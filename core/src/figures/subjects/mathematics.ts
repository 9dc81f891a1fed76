import { seeded } from '../../exercises/seeded.js';
import { choice, figure, FigureError, flag, number, words } from '../figure.js';
import type { Pen } from '../pen.js';
import { BLUE, GREEN, INK, ORANGE, PALE, WARM, WATER } from '../pen.js';

const radians = (degrees: number) => (degrees * Math.PI) / 180;

const clock = figure({
  subject: 'mathematics',
  width: 320,
  height: 380,
  fields: {
    hour: number(0, 23, 10),
    minute: number(0, 59, 10),
    shows: choice(['both', 'hands', 'digits', 'neither']),
  },
  draw(pen, { hour, minute, shows }) {
    const [x, y, radius] = [160, 160, 150];
    pen.circle(x, y, radius, { fill: '#ffffff', width: 5 });
    for (let i = 0; i < 60; i++) {
      const angle = radians(i * 6);
      const long = i % 5 === 0;
      const at = (r: number) => [x + r * Math.sin(angle), y - r * Math.cos(angle)] as const;
      pen.line([...at(radius - (long ? 16 : 9)), ...at(radius - 4)], { width: long ? 3.4 : 1.4 });
      if (long) pen.text(String(i === 0 ? 12 : i / 5), ...at(radius - 34), { size: 26 });
    }
    if (shows === 'both' || shows === 'hands') {
      const hand = (turn: number, length: number, width: number, colour: string) =>
        pen.line([x, y, x + length * Math.sin(radians(turn)), y - length * Math.cos(radians(turn))], {
          width,
          colour,
        });
      hand((hour % 12) * 30 + minute / 2, 78, 9, INK);
      hand(minute * 6, 116, 6, BLUE);
    }
    pen.circle(x, y, 8, { fill: INK });
    pen.rect(95, 328, 130, 46, { fill: '#ffffff' });
    if (shows === 'both' || shows === 'digits') {
      const two = (value: number) => String(value).padStart(2, '0');
      pen.text(`${two(hour)}:${two(minute)}`, 160, 351, { size: 32 });
    }
  },
});

const fraction = figure({
  subject: 'mathematics',
  width: 300,
  height: 300,
  fields: {
    form: choice(['circle', 'bar']),
    parts: number(1, 24, 8),
    shaded: number(0, 24, 3),
    says: flag(true),
  },
  draw(pen, { form, parts, shaded, says }) {
    const filled = Math.min(shaded, parts);
    const fill = (i: number) => (i < filled ? WATER : '#ffffff');
    if (form === 'circle')
      for (let i = 0; i < parts; i++) {
        const [from, to] = [(360 * i) / parts - 90, (360 * (i + 1)) / parts - 90];
        if (parts === 1) pen.circle(150, 125, 120, { fill: fill(0) });
        else pen.sector(150, 125, 120, from, to, { fill: fill(i) });
      }
    else
      for (let i = 0; i < parts; i++)
        pen.rect(10 + (280 * i) / parts, 85, 280 / parts, 80, { fill: fill(i) });
    if (!says) return;
    pen.text(String(filled), 150, 262, { size: 24 });
    pen.line([132, 275, 168, 275]);
    pen.text(String(parts), 150, 289, { size: 24 });
  },
});

/** A cube of ten by ten by ten, seen from above at a corner. */
function thousand(pen: Pen, x: number, y: number, side: number): void {
  const deep = side * 0.32;
  pen.area([x, y + deep, x + deep, y, x + side + deep, y, x + side, y + deep], { fill: WARM, width: 1.4 });
  pen.area([x + side, y + deep, x + side + deep, y, x + side + deep, y + side, x + side, y + side + deep], {
    fill: '#dcc48c',
    width: 1.4,
  });
  grid(pen, x, y + deep, side, side, 10, 10);
}

function grid(
  pen: Pen,
  x: number,
  y: number,
  width: number,
  height: number,
  columns: number,
  rows: number,
): void {
  pen.rect(x, y, width, height, { fill: WARM, width: 1.4 });
  for (let i = 1; i < columns; i++)
    pen.line([x + (width * i) / columns, y, x + (width * i) / columns, y + height], { width: 0.7 });
  for (let i = 1; i < rows; i++)
    pen.line([x, y + (height * i) / rows, x + width, y + (height * i) / rows], { width: 0.7 });
}

const blocks = figure({
  subject: 'mathematics',
  width: 760,
  height: 320,
  fields: { number: number(0, 9999, 1234) },
  draw(pen, { number: value }) {
    const digits = String(value).padStart(4, '0').split('').map(Number) as [number, number, number, number];
    const [thousands, hundreds, tens, ones] = digits;
    for (let i = 0; i < thousands; i++) thousand(pen, 8 + (i % 3) * 76, 8 + Math.floor(i / 3) * 92, 56);
    for (let i = 0; i < hundreds; i++)
      grid(pen, 262 + (i % 3) * 68, 26 + Math.floor(i / 3) * 72, 60, 60, 10, 10);
    for (let i = 0; i < tens; i++) grid(pen, 486 + i * 13, 26, 9, 90, 1, 10);
    for (let i = 0; i < ones; i++)
      pen.rect(636 + (i % 3) * 22, 26 + Math.floor(i / 3) * 22, 14, 14, { fill: WARM, width: 1.4 });
    for (const [x, digit] of [
      [110, thousands],
      [356, hundreds],
      [544, tens],
      [664, ones],
    ] as const)
      pen.text(String(digit), x, 300, { size: 26 });
  },
});

const abacus = figure({
  subject: 'mathematics',
  width: 420,
  height: 340,
  fields: { number: number(0, 9_999_999, 3052), rods: number(2, 7, 5) },
  draw(pen, { number: value, rods }) {
    const digits = String(value).padStart(rods, '0').slice(-rods).split('').map(Number);
    pen.rect(10, 10, 400, 290, { width: 6 });
    const gap = 400 / rods;
    for (const [i, digit] of digits.entries()) {
      const x = 10 + gap * (i + 0.5);
      pen.line([x, 12, x, 298], { width: 2.4, colour: PALE });
      const height = 24;
      const bead = (y: number, fill: string) => {
        const half = Math.min(22, gap * 0.42);
        pen.area(
          [
            x - half,
            y,
            x - half * 0.55,
            y - height / 2 + 1,
            x + half * 0.55,
            y - height / 2 + 1,
            x + half,
            y,
            x + half * 0.55,
            y + height / 2 - 1,
            x - half * 0.55,
            y + height / 2 - 1,
          ],
          { fill, width: 1.4 },
        );
      };
      // Beads that count lie below, the others of the ten above.
      for (let b = 0; b < 10; b++)
        bead(b < digit ? 284 - b * height : 26 + (9 - b) * height, b < digit ? ORANGE : WARM);
      pen.text(String(digit), x, 320, { size: 24 });
    }
  },
});

const unitCircle = figure({
  subject: 'mathematics',
  width: 400,
  height: 400,
  fields: { angle: number(0, 360, 40), values: flag(true) },
  draw(pen, { angle, values }) {
    const [o, r] = [200, 150];
    const [cos, sin] = [Math.cos(radians(angle)), Math.sin(radians(angle))];
    const at = [o + r * cos, o - r * sin] as const;
    pen.arrow(20, o, 385, o, { width: 1.8 });
    pen.arrow(o, 380, o, 15, { width: 1.8 });
    pen.circle(o, o, r);
    for (const [x, y, text] of [
      [o + r + 12, o + 14, '1'],
      [o - r - 14, o + 14, '−1'],
      [o - 12, o - r - 12, '1'],
      [o - 16, o + r + 12, '−1'],
    ] as const)
      pen.text(text, x, y, { size: 16 });
    pen.arc(o, o, 36, -angle, 0, { width: 1.8, colour: GREEN });
    pen.line([o, o, at[0], o], { colour: BLUE, width: 5 });
    pen.line([at[0], o, ...at], { colour: ORANGE, width: 5 });
    pen.line([o, o, ...at], { width: 3 });
    pen.circle(...at, 6, { fill: INK });
    if (!values) return;
    pen.text(`α = ${angle}°`, 14, 20, { size: 18, align: 'left', colour: GREEN });
    pen.text(`cos α = ${cos.toFixed(3)}`, 14, 44, { size: 18, align: 'left', colour: BLUE });
    pen.text(`sin α = ${sin.toFixed(3)}`, 14, 68, { size: 18, align: 'left', colour: ORANGE });
  },
});

type Point = readonly [number, number];

/** A regular polygon on a side, on its right-hand side. */
function onSide(a: Point, b: Point, corners: number): Point[] {
  const turn = (2 * Math.PI) / corners;
  const points: Point[] = [a, b];
  let [dx, dy] = [b[0] - a[0], b[1] - a[1]];
  while (points.length < corners) {
    [dx, dy] = [dx * Math.cos(turn) - dy * Math.sin(turn), dx * Math.sin(turn) + dy * Math.cos(turn)];
    const last = points.at(-1)!;
    points.push([last[0] + dx, last[1] + dy]);
  }
  return points;
}

const NETS: Readonly<Record<string, () => Point[][]>> = {
  cube: () =>
    [
      [0, 1],
      [1, 0],
      [1, 1],
      [1, 2],
      [2, 1],
      [3, 1],
    ].map(([x, y]) => square(x!, y!, 1, 1)),
  cuboid: () => [
    square(0, 1, 1, 2),
    square(1, 0, 1.5, 1),
    square(1, 1, 1.5, 2),
    square(1, 3, 1.5, 1),
    square(2.5, 1, 1, 2),
    square(3.5, 1, 1.5, 2),
  ],
  tetrahedron() {
    const base = onSide([0, 0], [1, 0], 3);
    return [base, ...sidesOf(base, 3)];
  },
  pyramid() {
    const base = square(0, 0, 1, 1);
    return [base, ...sidesOf(base, 3)];
  },
  octahedron() {
    // A strip of six triangles, and one at each side of it.
    const h = Math.sqrt(3) / 2;
    const up = (x: number): Point[] => [
      [x, h],
      [x + 1, h],
      [x + 0.5, 0],
    ];
    const down = (x: number): Point[] => [
      [x, 0],
      [x + 1, 0],
      [x + 0.5, h],
    ];
    const strip = [up(0), down(0.5), up(1), down(1.5), up(2), down(2.5)];
    return [
      ...strip,
      [
        [0, h],
        [1, h],
        [0.5, 2 * h],
      ],
      [
        [2.5, 0],
        [3.5, 0],
        [3, -h],
      ],
    ];
  },
  prism: () => [
    square(0, 0, 1, 1.6),
    square(1, 0, 1, 1.6),
    square(2, 0, 1, 1.6),
    onSide([2, 0], [1, 0], 3),
    onSide([1, 1.6], [2, 1.6], 3),
  ],
};

const square = (x: number, y: number, width: number, height: number): Point[] => [
  [x, y],
  [x + width, y],
  [x + width, y + height],
  [x, y + height],
];

/** A polygon outside each side of one. */
const sidesOf = (base: readonly Point[], corners: number): Point[][] =>
  base.map((from, i) => onSide(base[(i + 1) % base.length]!, from, corners));

/** Round bodies, whose nets have circles. */
function roundNet(pen: Pen, solid: string): void {
  if (solid === 'cylinder') {
    const radius = 52;
    const around = 2 * Math.PI * radius;
    pen.rect((420 - around) / 2, 130, around, 100, { fill: '#ffffff' });
    pen.circle(210, 130 - radius, radius, { fill: '#ffffff' });
    pen.circle(210, 230 + radius, radius, { fill: '#ffffff' });
  } else {
    // The mantle of a cone whose side is three times its radius is a third of a circle.
    pen.sector(210, 60, 180, 30, 150, { fill: '#ffffff' });
    pen.circle(210, 300, 60, { fill: '#ffffff' });
  }
}

const net = figure({
  subject: 'mathematics',
  width: 420,
  height: 362,
  fields: {
    solid: choice(['cube', 'cuboid', 'tetrahedron', 'pyramid', 'octahedron', 'prism', 'cylinder', 'cone']),
  },
  draw(pen, { solid }) {
    const faces = NETS[solid]?.();
    if (!faces) return roundNet(pen, solid);
    const all = faces.flat();
    const [xs, ys] = [all.map(([x]) => x), all.map(([, y]) => y)];
    const [left, top] = [Math.min(...xs), Math.min(...ys)];
    const scale = Math.min(400 / (Math.max(...xs) - left), 342 / (Math.max(...ys) - top));
    const at = ([x, y]: Point) => [10 + (x - left) * scale, 10 + (y - top) * scale];
    for (const face of faces) pen.area(face.flatMap(at), { fill: '#ffffff' });
  },
});

const sets = figure({
  subject: 'mathematics',
  width: 460,
  height: 380,
  fields: { count: choice(['2', '3']), a: words('A', 20), b: words('B', 20), c: words('C', 20) },
  draw(pen, { count, a, b, c }) {
    const three = count === '3';
    const y = three ? 135 : 190;
    pen.circle(165, y, 125);
    pen.circle(295, y, 125);
    if (three) pen.circle(230, 248, 125);
    pen.text(a, 90, three ? 26 : 50, { size: 24 });
    pen.text(b, 370, three ? 26 : 50, { size: 24 });
    if (three) pen.text(c, 380, 350, { size: 24 });
  },
});

const throws = figure({
  subject: 'mathematics',
  width: 480,
  height: 340,
  fields: {
    of: choice(['die', 'twoDice', 'coin']),
    count: number(1, 10_000, 1000),
    seed: number(1, 100_000, 1),
  },
  draw(pen, { of, count, seed }) {
    const chance = seeded(seed);
    const die = () => 1 + Math.floor(chance() * 6);
    const throwOne = { die, twoDice: () => die() + die(), coin: () => Math.floor(chance() * 2) }[of];
    const first = { die: 1, twoDice: 2, coin: 0 }[of];
    const kinds = { die: 6, twoDice: 11, coin: 2 }[of];
    const counts = Array.from({ length: kinds }, () => 0);
    for (let i = 0; i < count; i++) counts[throwOne() - first]! += 1;
    const most = Math.max(...counts);
    const width = 440 / kinds;
    for (const [i, value] of counts.entries()) {
      const height = most === 0 ? 0 : (240 * value) / most;
      pen.rect(24 + i * width + width * 0.12, 290 - height, width * 0.76, height, {
        fill: BLUE,
        edge: false,
      });
      pen.text(String(value), 24 + (i + 0.5) * width, 278 - height, { size: 15 });
      pen.text(of === 'coin' ? (i === 0 ? 'O' : 'X') : String(i + first), 24 + (i + 0.5) * width, 308, {
        size: 18,
      });
    }
    pen.line([20, 290, 468, 290]);
    pen.text(`n = ${count}`, 240, 328, { size: 17 });
  },
});

/** A point of a plane as it is typed, with or without a name: A 2 3, or −1 4.5. */
const PLACE = /^(?:(\p{L}\w?)\s*)?\(?\s*([-−]?\d+(?:\.\d+)?)\s*[\s|,]\s*([-−]?\d+(?:\.\d+)?)\s*\)?$/u;

const plane = figure({
  subject: 'mathematics',
  width: 420,
  height: 420,
  fields: {
    from: number(-20, 0, -5),
    to: number(1, 20, 5),
    places: words('A 2 3; B -3 1', 200),
    joined: flag(),
  },
  draw(pen, { from, to, places, joined }) {
    const step = 380 / (to - from);
    const at = (value: number) => 20 + (value - from) * step;
    const point = (x: number, y: number) => [at(x), 420 - at(y)] as const;
    const size = Math.min(16, Math.max(9, step * 0.5));
    for (let i = from; i <= to; i++) {
      pen.line([...point(i, from), ...point(i, to)], { colour: PALE, width: 0.8 });
      pen.line([...point(from, i), ...point(to, i)], { colour: PALE, width: 0.8 });
      if (i === 0 || (step < 16 && i % 5 !== 0)) continue;
      const [x, y] = [point(i, 0), point(0, i)];
      pen.text(String(i).replace('-', '−'), x[0], x[1] + size * 0.8, { size });
      pen.text(String(i).replace('-', '−'), y[0] - 5, y[1], { size, align: 'right' });
    }
    pen.arrow(...point(from, 0), 410, point(0, 0)[1], { width: 2 });
    pen.arrow(...point(0, from), point(0, 0)[0], 10, { width: 2 });
    pen.text('x', 410, point(0, 0)[1] - 14, { size: 17 });
    pen.text('y', point(0, 0)[0] + 14, 12, { size: 17 });
    const isSeen = ({ x, y }: { x: number; y: number }) => Math.min(x, y) >= from && Math.max(x, y) <= to;
    const seen = placesOf(places).filter(isSeen);
    if (joined && seen.length > 1)
      pen.line(
        seen.flatMap(({ x, y }) => point(x, y)),
        { colour: BLUE },
      );
    for (const { name, x, y } of seen) {
      pen.circle(...point(x, y), 5, { fill: BLUE, edge: false });
      pen.text(name, point(x, y)[0] + 12, point(x, y)[1] - 12, { size: 18 });
    }
  },
});

function placesOf(text: string): { name: string; x: number; y: number }[] {
  const typed = text.split(';').filter((one) => one.trim() !== '');
  return typed.map((one) => {
    const [, name = '', x, y] = PLACE.exec(one.trim()) ?? [];
    if (x === undefined || y === undefined) throw new FigureError('places', one.trim());
    return { name, x: Number(x.replace('−', '-')), y: Number(y.replace('−', '-')) };
  });
}

export const MATHEMATICS = { clock, fraction, plane, blocks, abacus, unitCircle, net, sets, throws };
