// What a hand makes of a line: tremor, rounded corners, misplaced ends, uneven speed. Common practice, no source.

/** Numbers of a stroke's point: x, y, pressure, time. */
const STEP = 1;

/** Points along a line, so dense that all else can be done to them. */
export function dense(line, step = STEP) {
  const points = [line[0]];
  for (let i = 1; i < line.length; i++) {
    const [ax, ay] = line[i - 1];
    const [bx, by] = line[i];
    const count = Math.max(1, Math.round(Math.hypot(bx - ax, by - ay) / step));
    for (let k = 1; k <= count; k++)
      points.push([ax + ((bx - ax) * k) / count, ay + ((by - ay) * k) / count]);
  }
  return points;
}

/** Corners cut by a running mean over so many units. */
function rounded(points, reach) {
  const half = Math.round(reach / 2);
  if (half < 1) return points;
  return points.map((_, i) => {
    const span = Math.min(half, i, points.length - 1 - i);
    let [x, y] = [0, 0];
    for (let k = i - span; k <= i + span; k++) {
      x += points[k][0];
      y += points[k][1];
    }
    return [x / (2 * span + 1), y / (2 * span + 1)];
  });
}

function trembling(points, random, amount) {
  const waves = Array.from({ length: 3 }, () => ({
    length: random.between(25, 120),
    phaseX: random.between(0, 7),
    phaseY: random.between(0, 7),
    height: random.between(0.3, 1) * amount,
  }));
  return points.map(([x, y], i) => [
    waves.reduce(
      (sum, { length, phaseX, height }) => sum + height * Math.sin((6.28 * i) / length + phaseX),
      x,
    ) + random.normal(0.12),
    waves.reduce(
      (sum, { length, phaseY, height }) => sum + height * Math.sin((6.28 * i) / length + phaseY),
      y,
    ) + random.normal(0.12),
  ]);
}

/** A line longer or shorter at its ends. */
function withEnds(points, atStart, atEnd) {
  const cut = (line, by) => {
    if (by < 0) return line.slice(Math.min(line.length - 2, Math.round(-by)));
    const [a, b] = [line[0], line[Math.min(6, line.length - 1)]];
    const length = Math.hypot(a[0] - b[0], a[1] - b[1]) || 1;
    const [dx, dy] = [(a[0] - b[0]) / length, (a[1] - b[1]) / length];
    const more = Array.from({ length: Math.round(by) }, (_, i) => [
      a[0] + dx * (Math.round(by) - i),
      a[1] + dy * (Math.round(by) - i),
    ]);
    return [...more, ...line];
  };
  return cut(cut(points, atStart).toReversed(), atEnd).toReversed();
}

/** What a pen tells: points by time, slower at the ends and where the line turns. */
function sampled(points, random) {
  const flat = [];
  let [at, time] = [0, 0];
  const pace = random.between(2.5, 8);
  while (at < points.length - 1) {
    const i = Math.floor(at);
    flat.push(...point(points[i], random, time));
    const ahead = points[Math.min(points.length - 1, i + 8)];
    const behind = points[Math.max(0, i - 8)];
    const straight = Math.hypot(ahead[0] - behind[0], ahead[1] - behind[1]) / 16;
    at += Math.max(0.8, pace * Math.min(1, straight) * random.between(0.7, 1.3));
    time += 8;
  }
  return [...flat, ...point(points.at(-1), random, time)];
}

function point([x, y], random, time) {
  const round = (value) => Math.round(value * 100) / 100;
  return [round(x), round(y), round(random.between(0.4, 0.6)), time];
}

/** A line as a hand draws it, as points of a stroke. `size` is that of the whole drawing, units. */
export function drawn(line, size, random, { ends = 0.03, corner = 0.035, tremor = 0.006 } = {}) {
  const end = () => random.between(-ends, ends) * size;
  const smooth = rounded(dense(line), random.between(0, corner) * size);
  return sampled(
    withEnds(trembling(smooth, random, random.between(0.3, 1) * tremor * size), end(), end()),
    random,
  );
}
