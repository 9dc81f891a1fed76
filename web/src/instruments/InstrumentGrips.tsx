import type { Gauge, Point } from '@doodla/core';
import type { Instrument } from '@doodla/core/instruments';
import { angleOf, onPage } from '@doodla/core/instruments';
import { saidAngle, saidLength } from '@doodla/core/measure';
import type { KeyboardEvent, PointerEvent } from 'react';
import { layInstrument, putAway } from '../desk/instruments';
import type { PageDesk } from '../room/pageDesk';
import type { Stage } from '../stage/stage';
import { takeArrow } from '../ui/arrowKeys';
import { Grip } from '../ui/Grip';
import { useDrag } from '../ui/useDrag';
import { t } from '../words';
import { DrawGrip } from './DrawGrip';
import type { GripOf } from './grips';
import { gripsOf, labelPlace, turnedByKeys } from './grips';
import { INSTRUMENT_NAMES } from './instrumentNames';
import { fieldFor, placeOf } from './useCarry';

/** How far an arrow key carries an instrument, page units. */
const KEY_STEP = 4;

interface InstrumentGripsProps {
  instrument: Instrument;
  gauge: Gauge;
  desk: PageDesk;
  stage: Stage;
  isOpen: boolean;
  onOpen(open: boolean): void;
}

/** By what an instrument is turned, opened and lengthened, and what it reads. */
export function InstrumentGrips({ instrument, gauge, desk, stage, isOpen, onOpen }: InstrumentGripsProps) {
  const onGlass = (local: Point, [right, down]: Point) => {
    const view = stage.view.get();
    const [x, y] = onPage(instrument, [local[0] + right / view.scale, local[1] + down / view.scale]);
    return { left: x * view.scale + view.x, top: y * view.scale + view.y };
  };
  const reads = readingOf(instrument, gauge);
  const name = INSTRUMENT_NAMES[instrument.kind];
  const { left, top } = onGlass(...labelPlace(instrument));
  return (
    <div role="group" aria-label={name} className="contents">
      <button
        type="button"
        aria-label={t('instruments.reads', { name, reads })}
        title={t('instruments.keys')}
        aria-expanded={isOpen}
        onClick={() => onOpen(!isOpen)}
        onKeyDown={(event) => onKey(event, instrument, desk)}
        style={{
          left: `clamp(2rem, ${left}px, calc(100% - 2rem))`,
          top: `clamp(1.6rem, ${top}px, calc(100% - 1.6rem))`,
        }}
        className="pointer-events-auto absolute min-h-9 -translate-1/2 touch-none rounded-full border-2 border-board bg-paper px-3 text-sm font-bold whitespace-nowrap text-board tabular-nums shadow-md"
      >
        {reads}
      </button>
      {gripsOf(instrument).map((grip) => (
        <DragGrip
          key={grip.label}
          grip={grip}
          instrument={instrument}
          desk={desk}
          stage={stage}
          place={onGlass(grip.at, grip.off)}
        />
      ))}
      {instrument.kind === 'compasses' && (
        <DrawGrip
          compasses={instrument}
          desk={desk}
          stage={stage}
          place={onGlass([instrument.radius, 0], [30, -44])}
        />
      )}
    </div>
  );
}

/** An angle, with a decimal only where it has one. */
export function saidTurn(degrees: number, gauge: Gauge): string {
  const tenths = Math.round(degrees * 10) / 10;
  return saidAngle(tenths, { ...gauge, decimals: Number.isInteger(tenths) ? 0 : 1 });
}

/** What an instrument reads: its angle, or how far it is open. */
export function readingOf(instrument: Instrument, gauge: Gauge): string {
  if (instrument.kind === 'compasses' || instrument.kind === 'dividers')
    return saidLength(instrument.radius, gauge);
  return saidTurn(instrument.kind === 'protractor' ? instrument.arm : angleOf(instrument), gauge);
}

function onKey(event: KeyboardEvent, instrument: Instrument, desk: PageDesk): void {
  if (event.key === 'Delete' || event.key === 'Backspace') {
    event.stopPropagation();
    return putAway(desk, instrument.kind);
  }
  const arrow = takeArrow(event);
  if (!arrow) return;
  const [right, down] = arrow;
  if (event.shiftKey) return layInstrument(desk, turnedByKeys(instrument, right + down));
  const { x, y } = instrument;
  layInstrument(desk, { ...instrument, x: x + right * KEY_STEP, y: y + down * KEY_STEP });
}

interface DragGripProps {
  grip: GripOf;
  instrument: Instrument;
  desk: PageDesk;
  stage: Stage;
  place: { left: number; top: number };
}

function DragGrip({ grip, instrument, desk, stage, place }: DragGripProps) {
  const changed = (event: PointerEvent, { start, from, field }: ReturnType<typeof hold>) => {
    const reach = 16 / stage.view.get().scale;
    return grip.drag(start, from, placeOf(event, stage), (at) => field?.place(at, reach)?.at ?? at);
  };
  const hold = (event: PointerEvent) => {
    event.stopPropagation();
    return { start: instrument, from: placeOf(event, stage), field: fieldFor(instrument, desk) };
  };
  const drag = useDrag<ReturnType<typeof hold>, HTMLButtonElement>({
    begin: hold,
    move: (event, held) => layInstrument(desk, changed(event, held), true),
    end: (event, held) => layInstrument(desk, changed(event, held)),
  });
  return (
    <Grip
      label={grip.label}
      {...place}
      icon={grip.icon}
      handlers={{
        ...(grip.click ? {} : drag),
        onClick: () => grip.click?.(desk, instrument),
        onKeyDown: (event) => {
          const arrow = takeArrow(event);
          if (arrow) layInstrument(desk, grip.arrow(instrument, ...arrow));
        },
      }}
    />
  );
}
