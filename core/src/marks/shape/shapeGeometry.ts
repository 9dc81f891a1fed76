import type { Path, PathStep } from '../../geometry/path.js';
import { polygonPath } from '../../geometry/path.js';
import type { Rect } from '../../geometry/rect.js';
import type { Form, ShapeMark } from './shapeMark.js';

type Corner = [number, number];

/** Corners on the unit square of the forms that have a fixed set of them. */
const UNIT_CORNERS: Partial<Record<Form, Corner[]>> = {
  rectangle: [
    [0, 0],
    [1, 0],
    [1, 1],
    [0, 1],
  ],
  triangle: [
    [0.5, 0],
    [1, 1],
    [0, 1],
  ],
  rightTriangle: [
    [0, 0],
    [1, 1],
    [0, 1],
  ],
  parallelogram: [
    [0.25, 0],
    [1, 0],
    [0.75, 1],
    [0, 1],
  ],
  trapezium: [
    [0.22, 0],
    [0.78, 0],
    [1, 1],
    [0, 1],
  ],
};

/** Distance of a cubic's control points that draws a quarter of a circle, as part of the radius. */
const KAPPA = 0.5522847498;

/**
 * Corners of a regular polygon inscribed in the box's ellipse, the first one on top; the inner
 * angles of a regular n-gon are (n − 2)·180°/n.
 */
function regularCorners(sides: number): Corner[] {
  return Array.from({ length: sides }, (_, i) => onCircle((i / sides) * 2 * Math.PI, 0.5));
}

function starCorners(points: number): Corner[] {
  return Array.from({ length: 2 * points }, (_, i) =>
    onCircle((i / (2 * points)) * 2 * Math.PI, i % 2 ? 0.22 : 0.5),
  );
}

function onCircle(angle: number, radius: number): Corner {
  return [0.5 + radius * Math.sin(angle), 0.5 - radius * Math.cos(angle)];
}

/** The corners of a shape in its unturned box; undefined for round ones. */
export function shapeCorners({
  form,
  sides,
  x,
  y,
  width,
  height,
}: Pick<ShapeMark, 'form' | 'sides'> & Rect): Corner[] | undefined {
  const unit =
    form === 'polygon' ? regularCorners(sides) : form === 'star' ? starCorners(sides) : UNIT_CORNERS[form];
  return unit?.map(([u, v]) => [x + u * width, y + v * height]);
}

/** The outline of a shape in its unturned box. */
export function shapePath(shape: Pick<ShapeMark, 'form' | 'sides'> & Rect): Path {
  const corners = shapeCorners(shape);
  if (corners) return polygonPath(corners, true);
  switch (shape.form) {
    case 'rounded':
      return roundedPath(shape, Math.min(shape.width, shape.height) * 0.2);
    case 'bracket':
      return bracketPath(shape);
    case 'balloon':
      return balloonPath(shape);
    case 'cloud':
      return cloudPath(shape);
    default:
      return roundedPath(shape, Infinity);
  }
}

/** A box with rounded corners; with a radius beyond half the sides, an ellipse. */
function roundedPath({ x, y, width, height }: Rect, radius: number): Path {
  const [rx, ry] = [Math.min(radius, width / 2), Math.min(radius, height / 2)];
  const [kx, ky] = [rx * (1 - KAPPA), ry * (1 - KAPPA)];
  const [right, bottom] = [x + width, y + height];
  return [
    ['M', x + rx, y],
    ['L', right - rx, y],
    ['C', right - kx, y, right, y + ky, right, y + ry],
    ['L', right, bottom - ry],
    ['C', right, bottom - ky, right - kx, bottom, right - rx, bottom],
    ['L', x + rx, bottom],
    ['C', x + kx, bottom, x, bottom - ky, x, bottom - ry],
    ['L', x, y + ry],
    ['C', x, y + ky, x + kx, y, x + rx, y],
    ['Z'],
  ];
}

/** A curly bracket that opens to the right; an open line. */
function bracketPath({ x, y, width, height }: Rect): Path {
  const at = (u: number, v: number): Corner => [x + u * width, y + v * height];
  return [
    ['M', ...at(1, 0)],
    ['C', ...at(0.35, 0), ...at(0.65, 0.5), ...at(0, 0.5)],
    ['C', ...at(0.65, 0.5), ...at(0.35, 1), ...at(1, 1)],
  ];
}

/** A rounded box with a tail at its lower left. */
function balloonPath({ x, y, width, height }: Rect): Path {
  const body = { x, y, width, height: height * 0.78 };
  const radius = Math.min(body.width, body.height) * 0.25;
  const bottom = y + body.height;
  const tail: PathStep[] = [
    ['L', x + width * 0.42, bottom],
    ['L', x + width * 0.16, y + height],
    ['L', x + width * 0.24, bottom],
  ];
  return roundedPath(body, radius).flatMap((step, i) => (i === 5 ? [...tail, step] : [step]));
}

/** Lobes all round, each an arc between two places of an ellipse. */
function cloudPath({ x, y, width, height, sides }: Pick<ShapeMark, 'sides'> & Rect): Path {
  // A cubic curve gets three quarters of the way to its controls: ¼·0.38 + ¾·0.54 is the radius of the box's ellipse.
  const [inner, outer] = [0.38, 0.54];
  const at = (angle: number, radius: number): Corner => [
    x + (0.5 + radius * Math.sin(angle)) * width,
    y + (0.5 - radius * Math.cos(angle)) * height,
  ];
  const lobe = (2 * Math.PI) / sides;
  const steps = Array.from({ length: sides }, (_, i): PathStep => {
    const from = i * lobe;
    return [
      'C',
      ...at(from + 0.08 * lobe, outer),
      ...at(from + 0.92 * lobe, outer),
      ...at(from + lobe, inner),
    ];
  });
  return [['M', ...at(0, inner)], ...steps, ['Z']];
}
