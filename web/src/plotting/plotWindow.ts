import type { Window } from '@doodla/core/plots';

/** A window moved by parts of its own size, right and up. */
export function moved({ x, y }: Window, dx: number, dy: number): Window {
  const by = ({ from, to }: Window['x'], part: number) => {
    const off = (to - from) * part;
    return { from: tidy(from + off, to - from), to: tidy(to + off, to - from) };
  };
  return { x: by(x, dx), y: by(y, dy) };
}

/** A window `factor` times as large about a place in it, given as parts of its size from its lower left corner. */
export function zoomed({ x, y }: Window, factor: number, px = 0.5, py = 0.5): Window {
  const by = ({ from, to }: Window['x'], part: number) => {
    const at = from + (to - from) * part;
    const size = (to - from) * factor;
    return { from: tidy(at - size * part, size), to: tidy(at + size * (1 - part), size) };
  };
  return { x: by(x, px), y: by(y, py) };
}

/** Rounded to far less than is seen of a window of a size. */
function tidy(value: number, size: number): number {
  const unit = 10 ** (Math.floor(Math.log10(size)) - 4);
  return Number((Math.round(value / unit) * unit).toPrecision(12));
}
