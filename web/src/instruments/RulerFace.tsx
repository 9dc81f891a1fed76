import type { Gauge } from '@doodla/core';
import type { EdgeUnit, Ruler } from '@doodla/core/instruments';
import { RULER, scaleMarks } from '@doodla/core/instruments';
import { memo } from 'react';
import { LETTERS, LOOK } from './look';
import { Scale } from './Scale';

interface RulerFaceProps {
  length: number;
  units: Ruler['units'];
  gauge: Gauge;
}

const { breadth, margin } = RULER;

/** A ruler in its own plane. */
export const RulerFace = memo(function RulerFace({ length, units: [upper, lower], gauge }: RulerFaceProps) {
  return (
    <g>
      <rect
        x={-margin}
        y={0}
        width={length + 2 * margin}
        height={breadth}
        rx={3}
        fill={LOOK.body}
        stroke={LOOK.edge}
        strokeWidth={1}
      />
      <Edge unit={upper} length={length} gauge={gauge} />
      <g transform={`translate(0 ${breadth})`}>
        <Edge unit={lower} length={length} gauge={gauge} up />
      </g>
    </g>
  );
});

function Edge({ unit, length, gauge, up }: { unit: EdgeUnit; length: number; gauge: Gauge; up?: boolean }) {
  return (
    <Scale marks={scaleMarks(unit, length, gauge)} side={up ? -1 : 1}>
      <text x={length + margin - 2} y={up ? -22 : 22 + LETTERS} textAnchor="end" fontSize={9} fill={LOOK.ink}>
        {unit === 'page' ? gauge.unit : unit === 'inch' ? 'in' : unit}
      </text>
    </Scale>
  );
}
