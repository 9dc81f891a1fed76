import { arcPath } from '../geometry/arc.js';
import type { Path } from '../geometry/path.js';
import { polylinePath } from '../geometry/path.js';
import { polygonArea } from '../geometry/polygon.js';
import type { MarkOf } from '../marks/mark.js';
import type { Figure } from '../marks/measures.js';
import type { PaintItem } from '../paint/items.js';
import { onGround } from '../paint/items.js';
import { fontMetrics } from '../text/font.js';
import { textWidth } from '../text/layout.js';
import type { Figures } from './figures.js';
import { figuresOf } from './figures.js';
import type { Outline, Point } from './outline.js';
import { outlineOf } from './outline.js';
import { isRight, saidAngle, saidArea, saidLength } from './said.js';

/** Of the letters and the lines by them, page units. */
const SIZE = 16;
const LINE = 1.5;
/** From a side to the middle of its length's letters, and from a corner to those of its angle. */
const BESIDE = 15;
const WITHIN = 36;
/** Of the arc that shows an angle, and the square that shows a right one. */
const ARC = 20;
const SQUARE = 14;
/** What takes the letters from their middle to their baseline, as part of the size. */
const DOWN = 0.34;

type Measured = MarkOf<'path' | 'shape'>;

/** The figures that a line or shape shows beside it. */
export function paintedFigures(mark: Measured): PaintItem[] {
  const { measures } = mark;
  if (!measures) return [];
  const outline = outlineOf(mark);
  const figures = figuresOf(outline);
  const shows = (figure: Figure) => measures.shown.includes(figure);
  const colour = mark.style.line ?? onGround(mark.style.fill ?? '#ffffff');
  const inside = mark.style.fill === null ? colour : onGround(mark.style.fill);
  const items: PaintItem[] = [];
  if (shows('sides')) items.push(...lengths(outline, figures, mark, colour));
  if (shows('angles')) items.push(...angles(outline, figures, mark, inside));
  const whole = [
    ...(shows('perimeter') && outline.kind !== 'arc'
      ? [`P = ${saidLength(figures.perimeter, measures.gauge)}`]
      : []),
    ...(shows('area') && figures.area !== undefined ? [`A = ${saidArea(figures.area, measures.gauge)}`] : []),
  ];
  const [x, y] = middleOf(outline);
  const isOpen = outline.kind === 'corners' && !outline.closed;
  // Below the radius of a circle, and below an open line.
  const below = isOpen || (outline.kind === 'ellipse' && shows('sides')) ? BESIDE + SIZE : 0;
  whole.forEach((text, i) =>
    items.push(letters(text, [x, y + below + (i - (whole.length - 1) / 2) * SIZE * 1.3], inside)),
  );
  return items;
}

function letters(text: string, [x, y]: Point, colour: string): PaintItem {
  const width = textWidth(text, 'andika', SIZE);
  return {
    kind: 'text',
    ...{ x: x - width / 2, y: y + DOWN * SIZE, text, width, size: SIZE, colour },
    ...{ face: 'andika', matrix: undefined },
    fallback: [...text].some((letter) => fontMetrics('andika').advance(letter.codePointAt(0)!) === undefined),
  };
}

function thin(path: Path, colour: string): PaintItem {
  return { kind: 'line', path, colour, width: LINE, dash: [], opacity: 1 };
}

function lengths(outline: Outline, figures: Figures, { measures }: Measured, colour: string): PaintItem[] {
  const { gauge } = measures!;
  if (outline.kind === 'corners') {
    const { corners, closed } = outline;
    const out = closed && polygonArea(corners) < 0 ? -1 : 1;
    return figures.sides.map((side, i) => {
      const [a, b] = [corners[i]!, corners[(i + 1) % corners.length]!];
      const [dx, dy] = [(b[0] - a[0]) / (side || 1), (b[1] - a[1]) / (side || 1)];
      // Letters lie level, so beside an upright line they need more room than over a level one.
      const text = saidLength(side, gauge);
      const room = BESIDE + (Math.abs(dy) * textWidth(text, 'andika', SIZE)) / 2 - Math.abs(dy) * 6;
      return letters(
        text,
        [(a[0] + b[0]) / 2 + out * dy * room, (a[1] + b[1]) / 2 - out * dx * room],
        colour,
      );
    });
  }
  if (outline.kind === 'ellipse' || outline.kind === 'arc') {
    const { centre } = outline;
    const radius = outline.kind === 'arc' ? outline.radius : outline.a;
    const rim: Point = outline.kind === 'arc' ? outline.points[0]! : [centre[0] + radius, centre[1]];
    if (figures.radius === undefined) return [];
    const line = polylinePath([...centre, ...rim], false);
    const middle: Point = [(centre[0] + rim[0]) / 2, (centre[1] + rim[1]) / 2 - BESIDE * 0.8];
    return [thin(line, colour), letters(`r = ${saidLength(radius, gauge)}`, middle, colour)];
  }
  const [length] = figures.sides;
  const half = outline.points[Math.floor(outline.points.length / 2)]!;
  return length === undefined
    ? []
    : [letters(saidLength(length, gauge), [half[0], half[1] - BESIDE], colour)];
}

function angles(outline: Outline, figures: Figures, { measures }: Measured, colour: string): PaintItem[] {
  if (outline.kind === 'arc') {
    const [a, , c] = outline.points as [Point, Point, Point];
    const sides = polylinePath([...a, ...outline.centre, ...c], false);
    const text = saidAngle(figures.angles[0]!, measures!.gauge);
    return [thin(sides, colour), letters(text, [outline.centre[0], outline.centre[1] - BESIDE], colour)];
  }
  if (outline.kind !== 'corners') return [];
  const { corners, closed } = outline;
  const inward = closed && polygonArea(corners) < 0 ? -1 : 1;
  return figures.angles.flatMap((angle, i) => {
    if (angle === undefined) return [];
    const [corner, before, after] = [corners[i]!, corners.at(i - 1)!, corners[(i + 1) % corners.length]!];
    const start = Math.atan2(after[1] - corner[1], after[0] - corner[0]);
    const sweep = ((closed ? inward : openHand(before, corner, after)) * angle * Math.PI) / 180;
    const at = (part: number, far: number): Point => [
      corner[0] + far * Math.cos(start + part * sweep),
      corner[1] + far * Math.sin(start + part * sweep),
    ];
    if (isRight(angle)) {
      const square = polylinePath(
        [...at(0, SQUARE), ...at(0.5, SQUARE * Math.SQRT2), ...at(1, SQUARE)],
        false,
      );
      return [thin(square, colour)];
    }
    const far = WITHIN * (angle < 40 ? 1.7 : angle < 75 ? 1.3 : 1);
    return [
      thin(arcPath(at(0, ARC), at(0.5, ARC), at(1, ARC)), colour),
      letters(saidAngle(angle, measures!.gauge), at(0.5, far), colour),
    ];
  });
}

/** On which side of an open line's bend the smaller angle lies. */
function openHand(before: Point, corner: Point, after: Point): 1 | -1 {
  const cross =
    (after[0] - corner[0]) * (before[1] - corner[1]) - (after[1] - corner[1]) * (before[0] - corner[0]);
  return cross >= 0 ? 1 : -1;
}

function middleOf(outline: Outline): Point {
  if (outline.kind === 'ellipse' || outline.kind === 'arc') return outline.centre;
  const points = outline.kind === 'corners' ? outline.corners : outline.points;
  return outline.closed ? centroid(points) : points[Math.floor(points.length / 2)]!;
}

/** The middle of a polygon's area (Bourke 1988, "Calculating the area and centroid of a polygon"). */
export function centroid(corners: readonly Point[]): Point {
  const area = polygonArea(corners);
  if (Math.abs(area) < 1e-9) return corners[0]!;
  let [x, y] = [0, 0];
  corners.forEach((a, i) => {
    const b = corners[(i + 1) % corners.length]!;
    const cross = a[0] * b[1] - b[0] * a[1];
    x += (a[0] + b[0]) * cross;
    y += (a[1] + b[1]) * cross;
  });
  return [x / (6 * area), y / (6 * area)];
}
