import type { Gauge } from '@doodla/core';
import type { SetSquare } from '@doodla/core/instruments';
import { scaleMarks, squareCorners } from '@doodla/core/instruments';
import { memo } from 'react';
import { insetTriangle } from './insetTriangle';
import { LOOK } from './look';
import { Scale } from './Scale';

interface SquareFaceProps {
  kind: SetSquare['kind'];
  length: number;
  unit: SetSquare['unit'];
  flip: boolean;
  gauge: Gauge;
}

/** How broad its sides are round the window in it, as part of its length. */
const SIDE = 0.15;

/** A set square in its own plane, with a window in it. */
export const SquareFace = memo(function SquareFace({ kind, length, unit, flip, gauge }: SquareFaceProps) {
  const corners = squareCorners({ kind, length, flip });
  const path = (points: readonly (readonly number[])[]) =>
    `M${points.map((each) => each.join(' ')).join('L')}Z`;
  const up = -corners[2][1];
  const marks = scaleMarks(unit, length * 0.9, gauge);
  const angles = kind === 'square45' ? ['45°', '45°'] : ['30°', '60°'];
  const [, far, high] = insetTriangle(corners, length * SIDE * 0.55);
  return (
    <g>
      <path
        d={path(corners) + path(insetTriangle(corners, length * SIDE))}
        fillRule="evenodd"
        fill={LOOK.body}
        stroke={LOOK.edge}
        strokeWidth={1}
      />
      <g transform={flip ? 'scale(-1 1)' : undefined}>
        {/* Numbers of a square that is turned over stay readable. */}
        <Scale marks={flip ? marks.map(({ at, level }) => ({ at, level })) : marks} side={-1} />
        <g transform="rotate(-90)">
          <Scale
            marks={scaleMarks(unit, up * 0.88, gauge).map(({ at, level }) => ({ at, level }))}
            side={1}
          />
        </g>
      </g>
      {[far, high].map((at, i) => (
        <text key={i} x={at[0]} y={at[1]} fontSize={10} textAnchor="middle" fill={LOOK.ink}>
          {angles[i]}
        </text>
      ))}
    </g>
  );
});
