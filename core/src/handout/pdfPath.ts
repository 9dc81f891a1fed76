import { appendBezierCurve, closePath, lineTo, moveTo } from '@cantoo/pdf-lib';
import type { PDFOperator } from '@cantoo/pdf-lib';
import type { Path } from '../paint/path.js';

/**
 * Path construction operators (ISO 32000-1 §8.5.2). PDF has cubic curves only, so a quadratic one
 * is raised in degree, which draws exactly the same curve.
 */
export function pathOperators(path: Path): PDFOperator[] {
  let [x, y] = [0, 0];
  return path.map((step) => {
    switch (step[0]) {
      case 'M':
        [, x, y] = step;
        return moveTo(x, y);
      case 'L':
        [, x, y] = step;
        return lineTo(x, y);
      case 'Q': {
        const [, qx, qy, toX, toY] = step;
        const operator = appendBezierCurve(
          x + (2 / 3) * (qx - x),
          y + (2 / 3) * (qy - y),
          toX + (2 / 3) * (qx - toX),
          toY + (2 / 3) * (qy - toY),
          toX,
          toY,
        );
        [x, y] = [toX, toY];
        return operator;
      }
      case 'C':
        [x, y] = [step[5], step[6]];
        return appendBezierCurve(step[1], step[2], step[3], step[4], step[5], step[6]);
      case 'Z':
        return closePath();
    }
  });
}
