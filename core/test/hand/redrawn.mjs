// A drawing as somebody draws it from memory, roughly: parts out of place, out of proportion and askew, small ones left out, lines
// taken in other pieces and other ways round, and what a hand makes of each. Common practice, no source.
import { drawn } from './hand.mjs';

/** Lines that are shorter than this part of the drawing's size may be forgotten. */
const SMALL = 0.3;

/** The strokes of a rough drawing of some lines, each `{ closed, points }`, about `size` page units large. */
export function redrawn(lines, size, random) {
  const whole = lines.map(({ points, closed }) => placesOf(points, closed));
  const box = boundsOf(whole.flat());
  const side = Math.max(box.width, box.height);
  const unit = (line) =>
    line.map(([x, y]) => [(x - box.x - box.width / 2) / side, (y - box.y - box.height / 2) / side]);
  const kept = whole.map(unit).filter((line) => lengthOf(line) > SMALL || random.chance(0.85));
  const askew = mapOf({ turn: 0.12, stretch: 0.14, shear: 0.12, shift: 0 }, random);
  const warp = warpOf(random);
  return (kept.length > 0 ? kept : whole.map(unit))
    .map((line) => line.map(mapOf({ turn: 0.05, stretch: 0.08, shear: 0.04, shift: 0.035 }, random)))
    .flatMap((line) => inPieces(line, random))
    .map((line) =>
      line
        .map(warp)
        .map(askew)
        .map(([x, y]) => [x * size + 400, y * size + 400]),
    ) // prettier-ignore
    .map((line) => drawn(random.chance(0.4) ? line.toReversed() : line, size, random));
}

function placesOf(points, closed) {
  const places = Array.from({ length: points.length / 2 }, (_, i) => [points[2 * i], points[2 * i + 1]]);
  return closed ? [...places, places[0]] : places;
}

function boundsOf(places) {
  const [xs, ys] = [places.map(([x]) => x), places.map(([, y]) => y)];
  const [x, y] = [Math.min(...xs), Math.min(...ys)];
  return { x, y, width: Math.max(...xs) - x, height: Math.max(...ys) - y };
}

function lengthOf(line) {
  return line.reduce((sum, [x, y], i) => {
    const [ax, ay] = line[Math.max(0, i - 1)];
    return sum + Math.hypot(x - ax, y - ay);
  }, 0);
}

function mapOf({ turn, stretch, shear, shift }, random) {
  const angle = random.normal(turn / 2);
  const [sx, sy] = [1 + random.normal(stretch), 1 + random.normal(stretch)];
  const lean = random.normal(shear);
  const [dx, dy] = [random.normal(shift), random.normal(shift)];
  const [cos, sin] = [Math.cos(angle), Math.sin(angle)];
  return ([x, y]) => {
    const [u, v] = [(x + lean * y) * sx, y * sy];
    return [u * cos - v * sin + dx, u * sin + v * cos + dy];
  };
}

/** A slow wave over the whole drawing: no two parts of it are off alike. */
function warpOf(random) {
  const waves = [0, 1].map(() => ({
    along: random.between(0.6, 1.6) * 2 * Math.PI,
    across: random.between(0.6, 1.6) * 2 * Math.PI,
    phase: random.between(0, 2 * Math.PI),
    height: random.normal(0.03),
  }));
  const off = ({ along, across, phase, height }, x, y) => height * Math.sin(along * x + across * y + phase);
  return ([x, y]) => [x + off(waves[0], x, y), y + off(waves[1], y, x)];
}

/** A line as one stroke, or lifted somewhere and gone on. */
function inPieces(line, random) {
  if (line.length < 8 || !random.chance(0.3)) return [line];
  const at = random.whole(3, line.length - 4);
  return [line.slice(0, at + 1), line.slice(at)];
}
