import { drawn } from './hand.mjs';
import { seeded } from './random.mjs';

const RIGHT = 90;
const rad = (degrees) => (degrees * Math.PI) / 180;
const polar = (degrees, radius) => [radius * Math.cos(rad(degrees)), radius * Math.sin(rad(degrees))];
const ring = (count, radius) => Array.from({ length: count }, (_, i) => polar((i * 360) / count, radius(i)));
const arc = (from, sweep, a = 1, b = a) =>
  Array.from({ length: 121 }, (_, i) => {
    const angle = rad(from + (sweep * i) / 120);
    return [a * Math.cos(angle), b * Math.sin(angle)];
  });

/** A triangle by two angles on a base. */
function triangle(left, right) {
  const height = 1 / (1 / Math.tan(rad(left)) + 1 / Math.tan(rad(right)));
  return [
    [0, 0],
    [1, 0],
    [height / Math.tan(rad(left)), -height],
  ];
}

/** Corners of each kind of polygon, on any scale. */
const POLYGONS = {
  triangle(random) {
    for (;;) {
      const [a, b] = [random.between(28, 110), random.between(28, 110)];
      const angles = [a, b, 180 - a - b];
      const apart = [a - b, b - angles[2], a - angles[2]].every((off) => Math.abs(off) > 17);
      if (angles[2] > 26 && apart && angles.every((angle) => Math.abs(angle - RIGHT) > 14))
        return triangle(a, b);
    }
  },
  isosceles(random) {
    const apex = random.chance(0.6) ? random.between(26, 44) : random.between(105, 128);
    return triangle((180 - apex) / 2, (180 - apex) / 2);
  },
  equilateral: () => triangle(60, 60),
  rightTriangle: (random) => triangle(RIGHT, random.between(24, 34)),
  square: () => [
    [0, 0],
    [1, 0],
    [1, 1],
    [0, 1],
  ],
  rectangle(random) {
    const wide = random.between(1.4, 3);
    return [
      [0, 0],
      [wide, 0],
      [wide, 1],
      [0, 1],
    ];
  },
  rhombus(random) {
    const half = rad(random.between(25, 36));
    return [
      [-Math.cos(half), 0],
      [0, -Math.sin(half)],
      [Math.cos(half), 0],
      [0, Math.sin(half)],
    ];
  },
  parallelogram(random) {
    const [wide, lean] = [random.between(1.5, 2.4), random.between(0.4, 0.75)];
    return [
      [0, 0],
      [wide, 0],
      [wide + lean, 1],
      [lean, 1],
    ];
  },
  trapezium(random) {
    const top = random.between(0.4, 0.68);
    const lean = random.chance(0.6) ? (1 - top) / 2 : random.between(0, (1 - top) / 3);
    const height = random.between(0.4, 0.8);
    return [
      [lean, 0],
      [lean + top, 0],
      [1, height],
      [0, height],
    ];
  },
  kite(random) {
    const [half, short] = [random.between(0.3, 0.45), random.between(0.22, 0.32)];
    return [
      [0, 0],
      [half, short],
      [0, 1.05],
      [-half, short],
    ];
  },
  quadrilateral: () => [
    [0, 0],
    [1.1, 0.1],
    [0.75, 1],
    [0.05, 0.55],
  ],
  polygon(random) {
    const count = random.whole(5, 10);
    return ring(count, () => 1);
  },
  star(random) {
    const inner = random.between(0.4, 0.55);
    return ring(2 * random.whole(5, 8), (i) => (i % 2 ? inner : 1));
  },
};

/** Open lines, each with its corners; none for a smooth one. */
const LINES = {
  line: () => ({
    line: [
      [0, 0],
      [1, 0],
    ],
  }),
  polyline(random) {
    const line = [[0, 0]];
    let [angle, hand] = [random.between(0, 360), random.pick([-1, 1])];
    for (let i = 0; i < random.whole(2, 4); i++) {
      const [dx, dy] = polar(angle, random.between(0.6, 1));
      line.push([line.at(-1)[0] + dx, line.at(-1)[1] + dy]);
      angle += hand * random.between(40, 100);
      hand = -hand;
    }
    return { line };
  },
  arc(random) {
    return { line: arc(random.between(0, 360), random.between(60, 270) * random.pick([-1, 1])) };
  },
  brace(random) {
    const [depth, round] = [random.between(0.14, 0.3), random.between(0.06, 0.12)];
    const half = depth / 2;
    const quarter = (cx, cy, from, sweep) => arc(from, sweep, half, round).map(([x, y]) => [cx + x, cy + y]);
    return {
      line: [
        ...quarter(half, round, -90, -90),
        ...quarter(-half, 0.5 - round, 0, 90),
        ...quarter(-half, 0.5 + round, -90, 90),
        ...quarter(half, 1 - round, 180, -90),
      ],
      smooth: true,
    };
  },
};

const turnedScaled = (degrees, scale, [x, y]) => {
  const [cos, sin] = [Math.cos(rad(degrees)) * scale, Math.sin(rad(degrees)) * scale];
  return [400 + x * cos - y * sin, 400 + x * sin + y * cos];
};

/** A drawing's size, and how it is turned: mostly about upright, as people draw. */
function placed(points, random, upright = 0.65) {
  const turn = random.chance(upright) ? random.normal(2.2) + 90 * random.whole(0, 3) : random.between(0, 360);
  const extent = Math.max(
    ...[0, 1].map((axis) => {
      const values = points.map((point) => point[axis]);
      return Math.max(...values) - Math.min(...values);
    }),
  );
  const scale = random.between(90, 460) / extent;
  return { map: (point) => turnedScaled(turn, scale, point), size: scale * extent };
}

function shifted(corners, size, random) {
  return corners.map(([x, y]) => [x + random.normal(0.009 * size), y + random.normal(0.009 * size)]);
}

/** Round and round from any corner, either way. */
function anyStart(corners, random) {
  const first = random.whole(0, corners.length - 1);
  const turned = corners.map((_, i) => corners[(first + i) % corners.length]);
  return random.chance(0.5) ? turned : turned.toReversed();
}

/** A closed line through corners, in 1 to 4 strokes that part at corners. */
function polygonStrokes(corners, size, random) {
  const line = [...corners, corners[0]];
  const strokes = random.chance(0.6) ? 1 : Math.min(corners.length, random.whole(2, 4));
  const cuts = [0, line.length - 1];
  while (cuts.length < strokes + 1) {
    const cut = random.whole(1, line.length - 2);
    if (!cuts.includes(cut)) cuts.push(cut);
  }
  cuts.sort((a, b) => a - b);
  return cuts.slice(1).map((to, i) => {
    const piece = line.slice(cuts[i], to + 1);
    return drawn(random.chance(0.2) ? piece.toReversed() : piece, size, random);
  });
}

function arrow(random) {
  const bent = random.next();
  const shaft =
    bent < 0.7
      ? [
          [0, 0],
          [1, 0],
        ]
      : bent < 0.85
        ? arc(0, random.between(50, 120)).map(([x, y]) => [x, y])
        : [
            [0, 0],
            [0.6, 0],
            [0.6 + random.between(-0.2, 0.3), random.between(0.45, 0.7)],
          ];
  const { map, size } = placed(shaft, random, 0.4);
  const line = shaft.map(map);
  const barbs = (points) => {
    const [tip, before] = [points.at(-1), points.at(-2)];
    const back = Math.atan2(before[1] - tip[1], before[0] - tip[0]);
    const [length, wide] = [random.between(0.14, 0.28) * size, random.between(22, 44)];
    return [-1, 1].map((side) => {
      const angle = back + side * rad(wide + random.normal(3));
      const long = length * random.between(0.85, 1.15);
      return [tip[0] + long * Math.cos(angle), tip[1] + long * Math.sin(angle)];
    });
  };
  const look = { ends: 0.015, corner: 0.012 };
  const [a, b] = barbs(line);
  const tip = line.at(-1);
  const way = random.next();
  if (way < 0.35) return [drawn([...line, a, tip, b], size, random, look)];
  const strokes = [drawn(line, size, random, look)];
  if (way < 0.75) strokes.push(drawn([a, tip, b], size, random, look));
  else strokes.push(drawn([tip, a], size, random, look), drawn([b, tip], size, random, look));
  if (way > 0.9) {
    const [c, d] = barbs(line.toReversed());
    strokes.push(drawn([c, line[0], d], size, random, look));
  }
  return strokes;
}

/** A closed curve drawn with an end that misses its beginning. */
function roundStrokes(a, b, random) {
  const start = random.between(0, 360);
  const { map, size } = placed(arc(0, 360, a, b), random);
  const pieces = random.chance(0.8) ? [360] : [180 + random.between(-30, 30)];
  if (pieces[0] !== 360) pieces.push(360 - pieces[0]);
  let from = start;
  const drift = random.between(-0.03, 0.03);
  return pieces.map((sweep) => {
    const off = pieces.length === 1 ? random.between(-14, 16) : 0;
    const line = arc(from, sweep + off, a, b).map(([x, y], i) =>
      map([x * (1 + (drift * i) / 120), y * (1 + (drift * i) / 120)]),
    );
    from += sweep;
    return drawn(line, size, random, { ends: 0.012 });
  });
}

function cloud(random) {
  const [lobes, b] = [random.whole(6, 11), random.between(0.55, 0.9)];
  const places = ring(lobes, () => 1).map(([x, y]) => [x + random.normal(0.04), y * b + random.normal(0.04)]);
  const line = places.flatMap((from, i) => {
    const to = places[(i + 1) % lobes];
    const [mx, my] = [(from[0] + to[0]) / 2, (from[1] + to[1]) / 2];
    const [ux, uy] = [(to[0] - from[0]) / 2, (to[1] - from[1]) / 2];
    const bulge = random.between(0.5, 0.95);
    return Array.from({ length: 20 }, (_, k) => {
      const angle = Math.PI - (Math.PI * k) / 20;
      const [along, out] = [Math.cos(angle), bulge * Math.sin(angle)];
      return [mx + ux * along + uy * out, my + uy * along - ux * out];
    });
  });
  const { map, size } = placed(line, random, 1);
  return [drawn([...line, line[0]].map(map), size, random, { corner: 0.012 })];
}

function pentagram(random) {
  const tips = ring(5, () => 1);
  const { map, size } = placed(tips, random);
  const order = [0, 2, 4, 1, 3, 0].map((i) => shifted([map(tips[i])], size, random)[0]);
  return [drawn(order, size, random)];
}

function strokesOf(kind, random) {
  if (kind === 'arrow') return arrow(random);
  if (kind === 'circle') return roundStrokes(1, 1, random);
  if (kind === 'ellipse') return roundStrokes(1, random.between(0.36, 0.72), random);
  if (kind === 'cloud') return cloud(random);
  if (kind === 'star' && random.chance(0.4)) return pentagram(random);
  if (kind in LINES) {
    const { line, smooth } = LINES[kind](random);
    const { map, size } = placed(line, random, smooth ? 0.8 : 0.4);
    const mapped = line.map(map);
    const ends = kind === 'polyline' || kind === 'line' ? 0.03 : 0.01;
    return [
      drawn(kind === 'polyline' ? shifted(mapped, size, random) : mapped, size, random, {
        ends,
        corner: smooth ? 0.015 : 0.03,
      }),
    ];
  }
  const corners = POLYGONS[kind](random);
  const { map, size } = placed(corners, random);
  return polygonStrokes(anyStart(shifted(corners.map(map), size, random), random), size, random);
}

export const KINDS = [
  'line',
  'polyline',
  'arrow',
  'arc',
  'circle',
  'ellipse',
  'brace',
  'cloud',
  ...Object.keys(POLYGONS),
];

/** Rough drawings of all kinds by turns: which kind was meant, and the strokes. */
export function roughShapes(count, seed) {
  return Array.from({ length: count }, (_, i) => {
    const kind = KINDS[i % KINDS.length];
    return { kind, strokes: strokesOf(kind, seeded(seed * 100_003 + i)) };
  });
}
