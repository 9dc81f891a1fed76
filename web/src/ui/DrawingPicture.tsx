import type { LineDrawing } from '@doodla/core/drawings';
import { drawingBounds } from '@doodla/core/drawings';

/** A line drawing, as large as its place is. */
export function DrawingPicture({ drawing, className }: { drawing: LineDrawing; className: string }) {
  const { x, y, width, height } = drawingBounds(drawing);
  const side = Math.max(width, height, 1);
  const line = side / 14;
  const [left, top] = [x + width / 2 - side / 2 - line, y + height / 2 - side / 2 - line];
  return (
    <svg
      viewBox={`${left} ${top} ${side + 2 * line} ${side + 2 * line}`}
      className={className}
      fill="none"
      stroke="currentColor"
      strokeWidth={line}
      strokeLinecap="round"
      strokeLinejoin="round"
      aria-hidden
    >
      {drawing.lines.map(({ points, closed }, i) => (
        <path key={i} d={`M${points.join(' ')}${closed ? 'Z' : ''}`} />
      ))}
    </svg>
  );
}
