import type { Gauge } from '@doodla/core';
import type { Instrument, Protractor } from '@doodla/core/instruments';
import { protractorReadings } from '@doodla/core/instruments';
import { saidAngle } from '@doodla/core/measure';
import { useCallback, useMemo } from 'react';
import { edgesNear } from '../desk/construct';
import type { PageDesk } from '../room/pageDesk';
import type { Stage } from '../stage/stage';
import { useStore } from '../store/useStore';
import { hitPath } from './hitPath';
import { LegsFace } from './LegsFace';
import { ProtractorFace } from './ProtractorFace';
import { RulerFace } from './RulerFace';
import { SquareFace } from './SquareFace';
import { useCarry } from './useCarry';

interface InstrumentBodyProps {
  instrument: Instrument;
  isMine: boolean;
  gauge: Gauge;
  desk: PageDesk;
  stage: Stage;
}

/** An instrument on the page; its owner carries it with one finger and turns it with two. */
export function InstrumentBody({ instrument, isMine, gauge, desk, stage }: InstrumentBodyProps) {
  const { x, y, turn, kind } = instrument;
  const carry = useCarry(instrument, desk, stage);
  const { scale } = stage.view.get();
  return (
    <g transform={`translate(${x} ${y}) rotate(${turn})`} data-instrument={kind} className="select-none">
      <Face instrument={instrument} gauge={gauge} desk={desk} />
      {isMine && (
        <path
          d={hitPath(instrument, scale)}
          fillRule="evenodd"
          fill="transparent"
          className="pointer-events-auto cursor-move touch-none"
          {...carry}
        />
      )}
    </g>
  );
}

function Face({ instrument, gauge, desk }: Pick<InstrumentBodyProps, 'instrument' | 'gauge' | 'desk'>) {
  switch (instrument.kind) {
    case 'ruler':
      return <RulerFace length={instrument.length} units={instrument.units} gauge={gauge} />;
    case 'square45':
    case 'square30': {
      const { kind, length, unit, flip } = instrument;
      return <SquareFace kind={kind} length={length} unit={unit} flip={flip} gauge={gauge} />;
    }
    case 'protractor':
      return <ReadingProtractor protractor={instrument} gauge={gauge} desk={desk} />;
    case 'compasses':
      return <LegsFace radius={instrument.radius} pencil={desk.penCase.get().pen.colour} />;
    case 'dividers':
      return <LegsFace radius={instrument.radius} />;
  }
}

interface ReadingProtractorProps {
  protractor: Protractor;
  gauge: Gauge;
  desk: PageDesk;
}

/** A protractor with the angles of the lines that leave its middle. */
function ReadingProtractor({ protractor, gauge, desk }: ReadingProtractorProps) {
  const changes = useStore(desk.marksChanged);
  const { x, y } = protractor;
  const page = useStore(desk.pageId);
  const edges = useMemo(() => edgesAt(desk, { x, y, page, changes }), [desk, x, y, page, changes]);
  const { radius, full, arm } = protractor;
  const readings = useMemo(() => protractorReadings(protractor, edges), [protractor, edges]);
  const said = useCallback((angle: number) => saidAngle(angle, gauge), [gauge]);
  return <ProtractorFace radius={radius} full={full} arm={arm} readings={readings} said={said} />;
}

/** The edges near a place, of the marks that were on a page after so many changes. */
function edgesAt(desk: PageDesk, place: { x: number; y: number; page: string | undefined; changes: number }) {
  return edgesNear(desk, place);
}
