import type { Frame } from '../../src/follow/index.js';

/** Numbers that look random and are the same in every run (Park and Miller, CACM 31, 1988). */
export function randomOf(seed: number): () => number {
  let state = seed % 2147483647 || 1;
  return () => {
    state = (state * 16807) % 2147483647;
    return state / 2147483647;
  };
}

/** A tall sheet of lines made of short dark bars, like text. */
export function sheet(width: number, height: number, seed: number): Frame {
  const random = randomOf(seed);
  const grey = new Uint8Array(width * height).fill(250);
  const bar = (x: number, y: number, w: number, h: number, value: number) => {
    for (let row = y; row < Math.min(height, y + h); row++)
      grey.fill(value, row * width + x, row * width + Math.min(width, x + w));
  };
  for (let y = 12; y < height; y += 22) {
    if (random() < 0.15) continue;
    for (let x = 40; x < width * (0.5 + random() * 0.4);) {
      const letters = 2 + Math.floor(random() * 8);
      for (let i = 0; i < letters; i++, x += 8) {
        bar(x, y + Math.floor(random() * 4), 2, 10, 30);
        bar(x, y + Math.floor(random() * 10), 6, 2, 60);
      }
      x += 10;
    }
  }
  return { width, height, grey };
}

/** What a window of `height` shows of a sheet scrolled down by `y`, under a fixed header if wanted. */
export function windowOn(tall: Frame, y: number, height: number, header = 0): Frame {
  const { width } = tall;
  const grey = tall.grey.slice(y * width, (y + height) * width);
  for (let row = 0; row < header; row++)
    for (let x = 0; x < width; x++) grey[row * width + x] = (x >> 4) % 3 === 0 ? 90 : 60;
  return { width, height, grey };
}

/** A list of contents: small faint words with dark lines under them, one each twelve pixels. */
export function contentsList(width: number, height: number, seed: number): Frame {
  const random = randomOf(seed);
  const grey = new Uint8Array(width * height).fill(255);
  for (let y = 4; y < height - 12; y += 12) {
    const left = random() < 0.2 ? 6 : 32;
    const right = left + 60 + Math.floor(random() * 200);
    const bar = (row: number, from: number, to: number, value: number) =>
      grey.fill(value, (y + row) * width + from, (y + row) * width + to);
    for (let x = left; x < right; x += 4 + Math.floor(random() * 3)) {
      const top = random() < 0.3 ? 0 : 2;
      for (let row = top; row < 8; row++) bar(row, x, x + 1, 170);
      if (random() < 0.5) bar(top + Math.floor(random() * 6), x, x + 3, 170);
    }
    bar(9, left, right, 20);
  }
  return { width, height, grey };
}

/** The frame with noise in a box, as a video would be. */
export function withVideo(
  frame: Frame,
  seed: number,
  box = { x: 300, y: 100, width: 280, height: 170 },
): Frame {
  const random = randomOf(seed);
  const grey = Uint8Array.from(frame.grey);
  for (let y = box.y; y < box.y + box.height; y++)
    for (let x = box.x; x < box.x + box.width; x++) grey[y * frame.width + x] = random() * 255;
  return { ...frame, grey };
}

/** What a window shows of a sheet that lies in it by x' = scale · x + dx, y' = scale · y + dy; means of what each pixel covers. */
export function scaledWindow(
  tall: Frame,
  { scale, dx, dy }: { scale: number; dx: number; dy: number },
  width: number,
  height: number,
): Frame {
  const grey = new Uint8Array(width * height);
  const across = Math.max(2, Math.ceil(2 / scale));
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++) {
      let sum = 0;
      for (let j = 0; j < across; j++)
        for (let i = 0; i < across; i++) {
          const sx = (x + (i + 0.5) / across - dx) / scale;
          const sy = (y + (j + 0.5) / across - dy) / scale;
          const inside = sx >= 0 && sy >= 0 && sx < tall.width && sy < tall.height;
          sum += inside ? tall.grey[Math.floor(sy) * tall.width + Math.floor(sx)]! : 250;
        }
      grey[y * width + x] = Math.round(sum / across ** 2);
    }
  return { width, height, grey };
}

/** The frame as a poor picture brings it: a little blurred, in steps, with noise that is another each time. */
export function lossy(frame: Frame, seed: number): Frame {
  const { width, height } = frame;
  const random = randomOf(seed * 7919);
  const grey = Uint8Array.from(frame.grey);
  for (let y = 1; y < height - 1; y++)
    for (let x = 1; x < width - 1; x++) {
      const at = y * width + x;
      const { grey: from } = frame;
      const mean =
        (4 * from[at]! + from[at - 1]! + from[at + 1]! + from[at - width]! + from[at + width]!) / 8;
      grey[at] = Math.max(0, Math.min(255, Math.round(mean / 4) * 4 + Math.round(random() * 6 - 3)));
    }
  return { width, height, grey };
}
