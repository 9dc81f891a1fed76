import type { Magnifier } from '@doodla/core';
import { Maximize2, Move } from 'lucide-react';
import { useEffect, useRef } from 'react';
import type { Stage } from '../stage/stage';
import type { PageDesk } from '../room/pageDesk';
import { GlassPainter } from './glassPainter';
import { Grip } from '../ui/Grip';
import { moved, onGlass, resized, useBoxDrag } from './useBoxDrag';
import { t } from '../words';

interface MagnifierGlassProps {
  focus: Magnifier;
  stage: Stage;
  desk: PageDesk;
  leads: boolean;
}

const LEAST = 60;

/** A round glass that shows what is under its middle enlarged, drawn anew and so sharp. */
export function MagnifierGlass({ focus, stage, desk, leads }: MagnifierGlassProps) {
  const host = useRef<HTMLDivElement>(null);
  const painter = useRef<GlassPainter | undefined>(undefined);
  const box = onGlass(focus, stage);
  const move = useBoxDrag(focus, desk, stage, moved);
  const resize = useBoxDrag(focus, desk, stage, resized(LEAST, true));
  useEffect(() => {
    const made = new GlassPainter(host.current!, desk, stage);
    painter.current = made;
    return () => made.destroy();
  }, [desk, stage]);
  useEffect(() => painter.current?.show(focus), [focus, box.width, box.left, box.top]);
  return (
    <>
      <div
        ref={host}
        data-testid="magnifier"
        className="absolute touch-none overflow-hidden rounded-full border-4 border-board bg-white shadow-2xl"
        style={{ ...box, pointerEvents: leads ? 'auto' : 'none', cursor: leads ? 'move' : undefined }}
        {...(leads && move)}
      />
      {leads && (
        <Grip
          label={t('focus.moveTheGlass')}
          left={box.left + box.width * 0.146}
          top={box.top + box.height * 0.146}
          icon={<Move aria-hidden size={20} />}
          handlers={move}
        />
      )}
      {leads && (
        <Grip
          label={t('focus.resizeTheGlass')}
          left={box.left + box.width * 0.854}
          top={box.top + box.height * 0.854}
          icon={<Maximize2 aria-hidden size={20} className="rotate-90" />}
          handlers={resize}
        />
      )}
    </>
  );
}
