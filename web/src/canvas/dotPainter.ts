import { TRAIL_MS } from '@doodla/core/client';
import type { Context } from './markPainter';

/** Where somebody points. */
export interface Dot {
  colour: string;
  /** Newest last; `at` by `performance.now`. */
  trail: readonly { x: number; y: number; at: number }[];
}

/** Radius of the dot, CSS pixels. */
const RADIUS = 11;

/** Draws pointing dots with their short trails, in page units; bright on any ground by a dark and a light ring. */
export function drawDots(ctx: Context, dots: readonly Dot[], scale: number): void {
  const now = performance.now();
  for (const { colour, trail } of dots) {
    ctx.lineCap = 'round';
    ctx.strokeStyle = colour;
    for (let i = 1; i < trail.length; i++) {
      const [from, to] = [trail[i - 1]!, trail[i]!];
      const left = Math.max(0, 1 - (now - to.at) / TRAIL_MS);
      ctx.globalAlpha = 0.6 * left;
      ctx.lineWidth = (RADIUS * 1.4 * left) / scale;
      ctx.beginPath();
      ctx.moveTo(from.x, from.y);
      ctx.lineTo(to.x, to.y);
      ctx.stroke();
    }
    ctx.globalAlpha = 1;
    const spot = trail.at(-1);
    if (!spot) continue;
    for (const [radius, fill] of [
      [RADIUS + 4, 'rgb(0 0 0 / 0.75)'],
      [RADIUS + 2, '#ffffff'],
      [RADIUS, colour],
    ] as const) {
      ctx.fillStyle = fill;
      ctx.beginPath();
      ctx.arc(spot.x, spot.y, radius / scale, 0, 2 * Math.PI);
      ctx.fill();
    }
  }
}
