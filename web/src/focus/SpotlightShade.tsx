import type { Spotlight } from '@doodla/core';
import { Maximize2, Move } from 'lucide-react';
import type { Stage } from '../stage/stage';
import type { PageDesk } from '../room/pageDesk';
import { Grip } from '../ui/Grip';
import { moved, onGlass, resized, useBoxDrag } from './useBoxDrag';
import { t } from '../words';

interface SpotlightShadeProps {
  focus: Spotlight;
  stage: Stage;
  desk: PageDesk;
  /** Whether this person moves it. */
  leads: boolean;
}

const LEAST = 40;

/** Everything dark but one region, in which one goes on writing; the dark moves it. */
export function SpotlightShade({ focus, stage, desk, leads }: SpotlightShadeProps) {
  const box = onGlass(focus, stage);
  const move = useBoxDrag(focus, desk, stage, moved);
  const resize = useBoxDrag(focus, desk, stage, resized(LEAST, false));
  return (
    <>
      <svg className="pointer-events-none absolute inset-0 size-full" data-testid="spotlight">
        <path
          d={`M-9999 -9999H99999V99999H-9999Z${holeOf(focus, box)}`}
          fillRule="evenodd"
          fill="#05100c"
          fillOpacity={focus.dark}
          pointerEvents={leads ? 'fill' : 'none'}
          style={{ touchAction: 'none', cursor: leads ? 'move' : undefined }}
          {...(leads && move)}
        />
      </svg>
      {leads && (
        <>
          <Grip
            label={t('focus.moveTheSpotlight')}
            left={box.left}
            top={box.top}
            icon={<Move aria-hidden size={20} />}
            handlers={move}
          />
          <Grip
            label={t('focus.resizeTheSpotlight')}
            left={box.left + box.width}
            top={box.top + box.height}
            icon={<Maximize2 aria-hidden size={20} className="rotate-90" />}
            handlers={resize}
          />
        </>
      )}
    </>
  );
}

function holeOf(
  { shape, outline }: Spotlight,
  { left, top, width, height }: { left: number; top: number; width: number; height: number },
): string {
  if (shape === 'rectangle') return `M${left} ${top}h${width}v${height}h${-width}Z`;
  if (shape === 'free' && outline) {
    const corners = Array.from(
      { length: outline.length / 2 },
      (_, i) => `${left + outline[2 * i]! * width} ${top + outline[2 * i + 1]! * height}`,
    );
    return `M${corners.join('L')}Z`;
  }
  const [rx, ry] = [width / 2, height / 2];
  return `M${left} ${top + ry}a${rx} ${ry} 0 1 0 ${width} 0a${rx} ${ry} 0 1 0 ${-width} 0Z`;
}
