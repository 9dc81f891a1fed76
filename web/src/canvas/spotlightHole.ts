import type { Rect, Spotlight } from '@doodla/core';

/** The region that a spotlight leaves bright, as SVG path data within a box. */
export function spotlightHole({ shape, outline }: Spotlight, { x, y, width, height }: Rect): string {
  if (shape === 'rectangle') return `M${x} ${y}h${width}v${height}h${-width}Z`;
  if (shape === 'free' && outline) {
    const corners = Array.from(
      { length: outline.length / 2 },
      (_, i) => `${x + outline[2 * i]! * width} ${y + outline[2 * i + 1]! * height}`,
    );
    return `M${corners.join('L')}Z`;
  }
  const [rx, ry] = [width / 2, height / 2];
  return `M${x} ${y + ry}a${rx} ${ry} 0 1 0 ${width} 0a${rx} ${ry} 0 1 0 ${-width} 0Z`;
}
