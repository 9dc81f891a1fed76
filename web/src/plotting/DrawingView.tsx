import type { Drawing } from '@doodla/core';
import { paintDrawing, toSvgPath } from '@doodla/core';

/** What a graph or chart looks like. */
export function DrawingView({ drawing }: { drawing: Drawing }) {
  return (
    <svg viewBox={`0 0 ${drawing.width} ${drawing.height}`} className="size-full" aria-hidden>
      {paintDrawing(drawing).map((item, i) =>
        item.kind === 'fill' ? (
          <path key={i} d={toSvgPath(item.path)} fill={item.colour} opacity={item.opacity} />
        ) : (
          <path
            key={i}
            d={toSvgPath(item.path)}
            fill="none"
            stroke={item.colour}
            strokeWidth={item.width}
            strokeDasharray={item.dash.join(' ')}
            strokeLinejoin="round"
          />
        ),
      )}
    </svg>
  );
}
