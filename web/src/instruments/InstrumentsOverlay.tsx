import { NO_SCENE } from '@doodla/core/client';
import type { InstrumentKind } from '@doodla/core/instruments';
import { lazy, Suspense, useEffect, useState } from 'react';
import { instrumentsOn } from '../desk/instruments';
import { pageGauge } from '../desk/measures';
import type { PageDesk } from '../room/pageDesk';
import type { Stage } from '../stage/stage';
import { useStore } from '../store/useStore';
import { InstrumentBody } from './InstrumentBody';
import { InstrumentGrips } from './InstrumentGrips';
import { keepOwn } from './keepOwn';

const InstrumentPanel = lazy(() => import('./InstrumentPanel'));

/** Browsers do not heed `touch-action` on all parts of a drawing, and would take two fingers for themselves. */
function keepTouches(drawing: SVGSVGElement): () => void {
  const keep = (event: TouchEvent) => event.preventDefault();
  drawing.addEventListener('touchstart', keep, { passive: false });
  return () => drawing.removeEventListener('touchstart', keep);
}

/** What lies on the page to draw and measure with, and by which its owner takes hold of it. */
export default function InstrumentsOverlay({ desk, stage }: { desk: PageDesk; stage: Stage }) {
  useStore(desk.classroom?.scene ?? NO_SCENE);
  useStore(desk.ownInstruments);
  useStore(desk.room.rules);
  useStore(desk.pages);
  const page = useStore(desk.pageId);
  const view = useStore(stage.view);
  const [opened, setOpened] = useState<InstrumentKind>();
  useEffect(() => keepOwn(desk.room), [desk]);
  useEffect(() => setOpened(undefined), [page]);
  const lying = instrumentsOn(desk);
  if (lying.length === 0) return null;
  const gauge = pageGauge(desk);
  const mine = lying.filter(({ isMine }) => isMine).map(({ instrument }) => instrument);
  const shown = mine.find(({ kind }) => kind === opened);
  return (
    <>
      <svg
        ref={keepTouches}
        className="pointer-events-none absolute inset-0 size-full overflow-hidden"
        data-testid="instruments"
      >
        <g transform={`translate(${view.x} ${view.y}) scale(${view.scale})`}>
          {lying.map(({ instrument, isMine }) => (
            <InstrumentBody
              key={`${instrument.kind} ${isMine}`}
              instrument={instrument}
              isMine={isMine}
              gauge={gauge}
              desk={desk}
              stage={stage}
            />
          ))}
        </g>
      </svg>
      {mine.map((instrument) => (
        <InstrumentGrips
          key={instrument.kind}
          instrument={instrument}
          gauge={gauge}
          desk={desk}
          stage={stage}
          isOpen={instrument.kind === opened}
          onOpen={(open) => setOpened(open ? instrument.kind : undefined)}
        />
      ))}
      <Suspense>
        {shown && (
          <InstrumentPanel
            key={shown.kind}
            instrument={shown}
            gauge={gauge}
            desk={desk}
            stage={stage}
            onClose={() => setOpened(undefined)}
          />
        )}
      </Suspense>
    </>
  );
}
