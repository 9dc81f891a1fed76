/** Both sides of an icon in the units of its set. */
const OWN_SIDE = 24;
/** Both sides of an icon in the whole numbers in which its corners are kept. */
export const ICON_SIDE = 480;

/** The lines of an icon that is drawn by strokes, each `{ closed, points }`; `readSvg` reads the shapes of an SVG. */
export function linesOfIcon(body, readSvg) {
  const svg = `<svg xmlns="http://www.w3.org/2000/svg" width="${ICON_SIDE}" height="${ICON_SIDE}" viewBox="0 0 ${OWN_SIDE} ${OWN_SIDE}"><g fill="none" stroke="#000000">${body}</g></svg>`;
  return readSvg(svg, { width: ICON_SIDE, height: ICON_SIDE }).marks.flatMap(({ body: line }) =>
    line.kind === 'path' ? [{ closed: line.closed, points: simpler(line.points.map(Math.round)) }] : [],
  );
}

/** Without corners that lie on the straight line between their neighbours. */
function simpler(points) {
  const kept = points.slice(0, 2);
  for (let i = 2; i + 1 < points.length; i += 2) {
    const [x, y] = [points[i], points[i + 1]];
    if (x === kept.at(-2) && y === kept.at(-1)) continue;
    const [ax, ay] = kept.slice(-4, -2);
    const [bx, by] = kept.slice(-2);
    const straight = kept.length > 2 && (bx - ax) * (y - by) === (by - ay) * (x - bx);
    if (straight && (bx - ax) * (x - bx) + (by - ay) * (y - by) >= 0) kept.splice(-2);
    kept.push(x, y);
  }
  return kept.length > 2 ? kept : [...kept, ...kept];
}
