/** Flat lists of x, y, pressure, time, as a hand would draw them. */
type Points = number[];

/** A small generator of numbers from -1 to 1, the same every time (Park and Miller 1988). */
export function shaky(seed: number): () => number {
  let state = seed;
  return () => {
    state = (state * 16807) % 2147483647;
    return (state / 2147483647) * 2 - 1;
  };
}

function along(count: number, at: (t: number) => [number, number], wobble: () => number): Points {
  const points: Points = [];
  for (let i = 0; i <= count; i++) {
    const t = i / count;
    const [x, y] = at(t);
    const pressure = Math.round((0.45 + 0.25 * Math.sin(Math.PI * t)) * 1000) / 1000;
    points.push(round(x + wobble()), round(y + wobble()), pressure, i * 16);
  }
  return points;
}

const round = (value: number) => Math.round(value * 100) / 100;

export function lineStroke(x0: number, y0: number, x1: number, y1: number, wobble: () => number): Points {
  return along(24, (t) => [x0 + (x1 - x0) * t, y0 + (y1 - y0) * t + 3 * Math.sin(t * 5)], wobble);
}

/** A ring that does not quite close, as rings round a word do. */
export function ringStroke(x: number, y: number, rx: number, ry: number, wobble: () => number): Points {
  return along(
    48,
    (t) => [x + rx * Math.cos(-1.9 + t * 6.7), y + ry * (1 + 0.06 * t) * Math.sin(-1.9 + t * 6.7)],
    wobble,
  );
}

/** An arrow in one go: shaft, then one side of the head, back and the other. */
export function arrowStroke(x0: number, y0: number, x1: number, y1: number, wobble: () => number): Points {
  const angle = Math.atan2(y1 - y0, x1 - x0);
  const barb = (turn: number): [number, number] => [
    x1 - 22 * Math.cos(angle + turn),
    y1 - 22 * Math.sin(angle + turn),
  ];
  const corners: [number, number][] = [[x0, y0], [x1, y1], barb(0.5), [x1, y1], barb(-0.5)];
  return along(
    40,
    (t) => {
      const leg = Math.min(3, Math.floor(t * 4));
      const u = t * 4 - leg;
      const [from, to] = [corners[leg]!, corners[leg + 1]!];
      return [from[0] + (to[0] - from[0]) * u, from[1] + (to[1] - from[1]) * u];
    },
    wobble,
  );
}

export function tickStroke(x: number, y: number, wobble: () => number): Points {
  return along(
    14,
    (t) => (t < 0.35 ? [x + 40 * t, y + 60 * t] : [x + 14 + 70 * (t - 0.35), y + 21 - 90 * (t - 0.35)]),
    wobble,
  );
}
