import svgpath from 'svgpath';
import type { Matrix } from '../geometry/matrix.js';
import { IDENTITY } from '../geometry/matrix.js';
import type { PathStep } from '../geometry/path.js';

/** Path data of SVG (SVG 2 §9.3) as absolute steps, mapped: arcs as curves, short forms spelt out. */
export function stepsOf(data: string, matrix: Matrix = IDENTITY): PathStep[] {
  const steps: PathStep[] = [];
  svgpath(data)
    .abs()
    .unshort()
    .unarc()
    .matrix([...matrix])
    .iterate(([letter, ...n], _, x, y) => {
      if (letter === 'H') steps.push(['L', n[0]!, y]);
      else if (letter === 'V') steps.push(['L', x, n[0]!]);
      else if (letter === 'Z' || letter === 'z') steps.push(['Z']);
      else steps.push([letter, ...n] as unknown as PathStep);
    });
  return steps;
}
