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
