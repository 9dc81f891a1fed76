/** Directions along pixel edges: right, down, left, up. */
const DX = [1, 0, -1, 0] as const;
const DY = [0, 1, 0, -1] as const;

/**
 * The edges of a mask as closed rings of x, y on the pixel grid, outer ones and holes, the set
 * pixels to the right of the way: crack following (Rosenfeld and Kak, Digital Picture Processing,
 * 1982, §11.1). Every ring starts at an upper edge of a set pixel.
 */
export function traceRings(mask: Uint8Array, width: number, height: number): number[][] {
  const isSet = (x: number, y: number) =>
    x >= 0 && y >= 0 && x < width && y < height && mask[y * width + x] === 1;
  const traced = new Uint8Array(width * height);
  const rings: number[][] = [];
  for (let from = mask.indexOf(1); from >= 0;) {
    const y = Math.floor(from / width);
    const end = mask.indexOf(0, from);
    const to = Math.min((y + 1) * width, end < 0 ? mask.length : end);
    // Upper edges are where the run has nothing above it.
    for (let at = from; at < to; at++) {
      if (y > 0) {
        const open = mask.indexOf(0, at - width);
        if (open < 0 || open >= to - width) break;
        at = open + width;
      }
      if (!traced[at]) rings.push(follow(at - y * width, y, isSet, traced, width));
    }
    from = mask.indexOf(1, to);
  }
  return rings;
}

function follow(
  startX: number,
  startY: number,
  isSet: (x: number, y: number) => boolean,
  traced: Uint8Array,
  width: number,
): number[] {
  const ring: number[] = [];
  let [x, y, direction] = [startX, startY, 0];
  do {
    // Going right, the pixel below is set; its upper edge is done with.
    if (direction === 0) traced[y * width + x] = 1;
    x += DX[direction]!;
    y += DY[direction]!;
    const turned = turnAt(x, y, direction, isSet);
    if (turned !== direction) ring.push(x, y);
    direction = turned;
  } while (x !== startX || y !== startY || direction !== 0);
  return ring;
}

/** Where to go on from a grid corner: left if both pixels ahead are set, right if neither, else straight. */
function turnAt(x: number, y: number, direction: number, isSet: (x: number, y: number) => boolean): number {
  const [aheadLeft, aheadRight] = ahead(x, y, direction).map(([px, py]) => isSet(px, py)) as [
    boolean,
    boolean,
  ];
  if (!aheadRight) return (direction + 1) % 4;
  return aheadLeft ? (direction + 3) % 4 : direction;
}

/** The two pixels before a corner, left and right of the way. */
function ahead(x: number, y: number, direction: number): [[number, number], [number, number]] {
  switch (direction) {
    case 0:
      return [
        [x, y - 1],
        [x, y],
      ];
    case 1:
      return [
        [x, y],
        [x - 1, y],
      ];
    case 2:
      return [
        [x - 1, y],
        [x - 1, y - 1],
      ];
    default:
      return [
        [x - 1, y - 1],
        [x, y - 1],
      ];
  }
}
