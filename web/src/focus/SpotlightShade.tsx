import type { Spotlight } from '@doodla/core';
import { Maximize2, Move } from 'lucide-react';
import { spotlightHole } from '../canvas/spotlightHole';
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
          d={`M-9999 -9999H99999V99999H-9999Z${spotlightHole(focus, { ...box, x: box.left, y: box.top })}`}
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
