import { choice, figure, number } from '../figure.js';
import type { Pen } from '../pen.js';
import { BLUE, GREEN, INK, ORANGE, PALE } from '../pen.js';

/**
 * Where the image is and how many times as large: 1/f = 1/g + 1/b (thin lens and spherical mirror; e.g. Hecht, "Optics", eq.
 * 5.17). A negative distance is on the object's side of a lens and behind a mirror, a negative size upside down. Undefined where
 * the object stands in the focal plane.
 */
export function imageOf(focal: number, distance: number): { distance: number; size: number } | undefined {
  if (distance === focal) return undefined;
  const image = 1 / (1 / focal - 1 / distance);
  return { distance: image, size: -image / distance };
}

const [WIDTH, HEIGHT] = [720, 320];
const [MIDDLE, AXIS] = [360, 160];
const FAR = 700;
/** What is set of the object and of what stands in its way. */
const BENCH = {
  focal: number(30, 160, 90),
  distance: number(30, 340, 200),
  size: number(10, 100, 60),
} as const;

/** The three rays from the tip of the object; `side` is 1 for a lens, and -1 for a mirror, which throws them back. */
function rays(
  pen: Pen,
  { focal, distance, size, side }: { focal: number; distance: number; size: number; side: 1 | -1 },
): void {
  const tip: [number, number] = [MIDDLE - distance, AXIS - size];
  const image = imageOf(focal, distance);
  pen.line([0, AXIS, WIDTH, AXIS], { colour: PALE, width: 1.4 });
  for (const [x, name] of [
    [MIDDLE - focal, 'F'],
    [MIDDLE + focal, side === 1 ? "F'" : ''],
  ] as const)
    if (name !== '') {
      pen.circle(x, AXIS, 4, { fill: INK, edge: false });
      pen.text(name, x, AXIS + 18, { size: 17 });
    }
  pen.arrow(tip[0], AXIS, ...tip, { colour: GREEN, width: 3.4 });
  const through = (y: number, slope: number, colour: string) => {
    // Only as far as the drawing goes.
    const reach = (fall: number) =>
      Math.min(MIDDLE - 6, fall === 0 ? FAR : ((fall > 0 ? HEIGHT - 6 : 6) - y) / fall);
    const run = reach(slope);
    pen.line([...tip, MIDDLE, y], { colour, width: 1.8 });
    pen.line([MIDDLE, y, MIDDLE + side * run, y + run * slope], { colour, width: 1.8 });
    if (image && image.distance < 0) {
      const back = Math.min(-image.distance, reach(-slope));
      pen.line([MIDDLE, y, MIDDLE - side * back, y - back * slope], { colour, width: 1.4, dash: 6 });
    }
  };
  const parallel = AXIS - size;
  through(parallel, size / focal, ORANGE);
  through(AXIS, size / distance, BLUE);
  const focus = distance - focal;
  if (Math.abs(focus) > 1) {
    const y = AXIS + (size * focal) / focus;
    if (y > 6 && y < HEIGHT - 6) through(y, 0, GREEN);
  }
  if (image && Math.abs(image.distance) < MIDDLE - 10 && Math.abs(image.size * size) < HEIGHT / 2 - 6) {
    const x = MIDDLE + side * image.distance;
    pen.arrow(x, AXIS, x, AXIS - image.size * size, { colour: ORANGE, width: 3.4 });
  }
}

const lens = figure({
  subject: 'physics',
  width: WIDTH,
  height: HEIGHT,
  fields: {
    form: choice(['convex', 'concave']),
    ...BENCH,
  },
  draw(pen, { form, focal, distance, size }) {
    const f = form === 'convex' ? focal : -focal;
    rays(pen, { focal: f, distance, size, side: 1 });
    const bend = form === 'convex' ? 14 : -12;
    const rim = form === 'convex' ? 0 : 16;
    const half = (sign: 1 | -1) =>
      Array.from({ length: 25 }, (_, i) => {
        const y = (i / 24) * 2 - 1;
        return [MIDDLE + sign * (rim + bend * (1 - y * y)), AXIS + y * 140] as const;
      });
    pen.area([...half(1), ...half(-1).reverse()].flat(), { colour: INK, width: 2 });
  },
});

const mirror = figure({
  subject: 'physics',
  width: WIDTH,
  height: HEIGHT,
  fields: {
    form: choice(['concave', 'convex']),
    ...BENCH,
  },
  draw(pen, { form, focal, distance, size }) {
    const f = form === 'concave' ? focal : -focal;
    rays(pen, { focal: f, distance, size, side: -1 });
    const bend = form === 'concave' ? -18 : 18;
    const face = Array.from({ length: 25 }, (_, i) => {
      const y = (i / 24) * 2 - 1;
      return [MIDDLE + bend * y * y, AXIS + y * 140] as const;
    });
    pen.line(face.flat(), { width: 3.4 });
    for (const [x, y] of face.filter((_, i) => i % 2 === 0)) pen.line([x, y, x + 10, y + 8], { width: 1.4 });
  },
});

export const OPTICS = { lens, mirror };
