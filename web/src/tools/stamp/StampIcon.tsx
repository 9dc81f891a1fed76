import type { StampName } from '@doodla/core';
import { STAMP_PARTS, STAMP_SQUARE, toSvgPath } from '@doodla/core';

/** A stamp as it looks on the page. */
export function StampIcon({ stamp }: { stamp: StampName }) {
  const tone = (which: 'colour' | 'light') => (which === 'colour' ? 'currentColor' : 'var(--color-board)');
  return (
    <svg viewBox={`0 0 ${STAMP_SQUARE} ${STAMP_SQUARE}`} className="size-7" aria-hidden>
      {STAMP_PARTS[stamp].map((part, i) =>
        'fill' in part ? (
          <path key={i} d={toSvgPath(part.path)} fill={tone(part.fill)} />
        ) : (
          <path
            key={i}
            d={toSvgPath(part.path)}
            fill="none"
            stroke={tone(part.line)}
            strokeWidth={part.width}
            strokeLinecap="round"
          />
        ),
      )}
      {stamp === 'number' && (
        <text x={12} y={16.5} textAnchor="middle" fontSize={13} fontWeight={700} fill="var(--color-board)">
          1
        </text>
      )}
    </svg>
  );
}
