import type { ScaleMark } from '@doodla/core/instruments';
import type { ReactNode } from 'react';
import { LETTERS, LOOK } from './look';

/** How long marks are by their level, page units. */
const LENGTHS = [7, 10, 13, 17] as const;

/** Marks of a scale on a level edge, with their numbers, on its lower (1) or upper (-1) side. */
export function Scale({
  marks,
  side,
  children,
}: {
  marks: readonly ScaleMark[];
  side: 1 | -1;
  children?: ReactNode;
}) {
  const lines = marks.map(({ at, level }) => `M${at.toFixed(2)} 0v${side * LENGTHS[level]}`).join('');
  const middle = side * (LENGTHS[3] + 2) + (side > 0 ? LETTERS * 0.8 : 0);
  return (
    <g>
      <path d={lines} stroke={LOOK.ink} strokeWidth={0.7} fill="none" />
      {marks.map(
        ({ at, label }) =>
          label !== undefined && (
            <text key={at} x={at} y={middle} textAnchor="middle" fontSize={LETTERS} fill={LOOK.ink}>
              {label}
            </text>
          ),
      )}
      {children}
    </g>
  );
}
