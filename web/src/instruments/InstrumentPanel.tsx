import type { Gauge, Point } from '@doodla/core';
import type {
  Compasses,
  Dividers,
  EdgeUnit,
  Instrument,
  Protractor,
  Ruler,
  SetSquare,
} from '@doodla/core/instruments';
import {
  angleOf,
  arcOf,
  EDGE_UNITS,
  fullTurn,
  isPossible,
  onPage,
  turnReading,
  withLength,
  withRadius,
} from '@doodla/core/instruments';
import { ImpossibleFigure } from '@doodla/core/measure';
import { Archive, Ruler as RulerIcon } from 'lucide-react';
import { lazy, Suspense, useState } from 'react';
import { layInstrument, putAngle, putAway, putInk } from '../desk/instruments';
import type { PageDesk } from '../room/pageDesk';
import type { Stage } from '../stage/stage';
import { Button } from '../ui/Button';
import { FigureField } from '../ui/FigureField';
import { SidePanel } from '../ui/SidePanel';
import { Switch } from '../ui/Switch';
import type { TextName } from '../words/textNames';
import { t } from '../words';
import { INSTRUMENT_NAMES } from './instrumentNames';
import { showTrueSize } from './trueSize';

const TrueSizeDialog = lazy(() => import('./TrueSizeDialog'));

interface InstrumentPanelProps {
  instrument: Instrument;
  gauge: Gauge;
  desk: PageDesk;
  stage: Stage;
  onClose(): void;
}

interface PartProps<I extends Instrument> {
  instrument: I;
  gauge: Gauge;
  desk: PageDesk;
}

/** What can be typed and chosen of an instrument. */
export default function InstrumentPanel({ instrument, gauge, desk, stage, onClose }: InstrumentPanelProps) {
  const [isFitting, setFitting] = useState(false);
  const view = stage.view.get();
  return (
    <SidePanel
      title={INSTRUMENT_NAMES[instrument.kind]}
      room={{ width: stage.host.clientWidth, ...stage.sides }}
      middle={instrument.x * view.scale + view.x}
      onClose={onClose}
    >
      {instrument.kind !== 'protractor' && <Angle instrument={instrument} gauge={gauge} desk={desk} />}
      <Part instrument={instrument} gauge={gauge} desk={desk} />
      <Button
        look="onBoard"
        icon={<RulerIcon aria-hidden size={18} />}
        onClick={() => showTrueSize(stage) || setFitting(true)}
      >
        {t('instruments.trueSize')}
      </Button>
      <button
        type="button"
        className="min-h-11 rounded-xl text-start text-sm underline"
        onClick={() => setFitting(true)}
      >
        {t('instruments.fitByACard')}
      </button>
      <Button
        look="onBoard"
        icon={<Archive aria-hidden size={18} />}
        onClick={() => putAway(desk, instrument.kind)}
      >
        {t('instruments.putAway')}
      </Button>
      <Suspense>{isFitting && <TrueSizeDialog stage={stage} onClose={() => setFitting(false)} />}</Suspense>
    </SidePanel>
  );
}

function Part({ instrument, ...rest }: PartProps<Instrument>) {
  switch (instrument.kind) {
    case 'ruler':
      return <RulerPart instrument={instrument} {...rest} />;
    case 'square45':
    case 'square30':
      return <SquarePart instrument={instrument} {...rest} />;
    case 'protractor':
      return <ProtractorPart instrument={instrument} {...rest} />;
    case 'compasses':
      return <CompassesPart instrument={instrument} {...rest} />;
    case 'dividers':
      return <Opening instrument={instrument} {...rest} />;
  }
}

function Angle({ instrument, gauge, desk }: PartProps<Instrument>) {
  return (
    <FigureField
      label={t('instruments.angle')}
      value={written(angleOf(instrument), 1, gauge)}
      unit="°"
      onChange={(angle) => layInstrument(desk, { ...instrument, turn: turnReading(instrument, angle) })}
    />
  );
}

function Length({ instrument, gauge, desk }: PartProps<Ruler | SetSquare>) {
  return (
    <FigureField
      label={t('instruments.length')}
      value={written(instrument.length / gauge.per, Math.max(1, gauge.decimals), gauge)}
      unit={gauge.unit}
      onChange={(length) =>
        layInstrument(desk, withLength(instrument, possible(instrument, length * gauge.per)))
      }
    />
  );
}

function Opening({ instrument, gauge, desk }: PartProps<Compasses | Dividers>) {
  return (
    <FigureField
      label={t(instrument.kind === 'compasses' ? 'instruments.radius' : 'instruments.opening')}
      value={written(instrument.radius / gauge.per, Math.max(1, gauge.decimals), gauge)}
      unit={gauge.unit}
      onChange={(radius) =>
        layInstrument(desk, withRadius(instrument, possible(instrument, radius * gauge.per)))
      }
    />
  );
}

function RulerPart(props: PartProps<Ruler>) {
  const { instrument, gauge, desk } = props;
  const [upper, lower] = instrument.units;
  return (
    <>
      <Length {...props} />
      <UnitOf
        label={t('instruments.upperEdge')}
        unit={upper}
        gauge={gauge}
        onChange={(unit) => layInstrument(desk, { ...instrument, units: [unit, lower] })}
      />
      <UnitOf
        label={t('instruments.lowerEdge')}
        unit={lower}
        gauge={gauge}
        onChange={(unit) => layInstrument(desk, { ...instrument, units: [upper, unit] })}
      />
      <Stepped instrument={instrument} desk={desk} />
    </>
  );
}

function SquarePart(props: PartProps<SetSquare>) {
  const { instrument, gauge, desk } = props;
  return (
    <>
      <Length {...props} />
      <UnitOf
        label={t('instruments.edges')}
        unit={instrument.unit}
        gauge={gauge}
        onChange={(unit) => layInstrument(desk, { ...instrument, unit })}
      />
      <Switch
        label={t('instruments.turnedOver')}
        checked={instrument.flip}
        onChange={(flip) => layInstrument(desk, { ...instrument, flip })}
      />
      <Stepped instrument={instrument} desk={desk} />
    </>
  );
}

function Stepped({ instrument, desk }: { instrument: Ruler | SetSquare; desk: PageDesk }) {
  return (
    <Switch
      label={t('instruments.stepped')}
      checked={instrument.stepped}
      onChange={(stepped) => layInstrument(desk, { ...instrument, stepped })}
    />
  );
}

function ProtractorPart({ instrument, gauge, desk }: PartProps<Protractor>) {
  const most = instrument.full ? 360 : 180;
  const corners = (): [Point, Point, Point] => {
    const at = (angle: number) =>
      onPage({ ...instrument, turn: instrument.turn - angle }, [instrument.radius, 0]);
    return [at(0), [instrument.x, instrument.y], at(instrument.arm)];
  };
  return (
    <>
      <FigureField
        label={t('instruments.arm')}
        value={written(instrument.arm, 1, gauge)}
        unit="°"
        onChange={(arm) => {
          if (arm < 0 || arm > most) throw new ImpossibleFigure();
          layInstrument(desk, { ...instrument, arm });
        }}
      />
      <Button look="onBoard" disabled={!desk.mayWrite} onClick={() => putAngle(desk, corners())}>
        {t('instruments.drawTheAngle')}
      </Button>
      <FigureField
        label={t('instruments.baseLine')}
        value={written(angleOf(instrument), 1, gauge)}
        unit="°"
        onChange={(angle) => layInstrument(desk, { ...instrument, turn: fullTurn(-angle) })}
      />
      <Switch
        label={t('instruments.fullCircle')}
        checked={instrument.full}
        onChange={(full) =>
          layInstrument(desk, {
            ...instrument,
            full,
            arm: full ? instrument.arm : Math.min(180, instrument.arm),
          })
        }
      />
    </>
  );
}

function CompassesPart(props: PartProps<Compasses>) {
  const { instrument, desk } = props;
  const draw = (degrees: number) => {
    putInk(desk, arcOf(instrument, degrees));
    layInstrument(desk, { ...instrument, turn: fullTurn(instrument.turn + degrees) });
  };
  return (
    <>
      <Opening {...props} />
      <FigureField
        label={t('instruments.arc')}
        value=""
        unit="°"
        onChange={(degrees) => {
          if (degrees === 0 || Math.abs(degrees) > 360 || !desk.mayWrite) throw new ImpossibleFigure();
          draw(-degrees);
        }}
      />
      <Button look="onBoard" disabled={!desk.mayWrite} onClick={() => draw(360)}>
        {t('instruments.drawTheCircle')}
      </Button>
    </>
  );
}

const UNIT_NAMES: Record<Exclude<EdgeUnit, 'page'>, TextName> = {
  mm: 'measures.mm',
  cm: 'measures.cm',
  inch: 'measures.inch',
};

interface UnitOfProps {
  label: string;
  unit: EdgeUnit;
  gauge: Gauge;
  onChange(unit: EdgeUnit): void;
}

function UnitOf({ label, unit, gauge, onChange }: UnitOfProps) {
  return (
    <label className="flex items-center justify-between gap-2 text-sm">
      <span className="font-bold">{label}</span>
      <select
        value={unit}
        className="min-h-11 rounded-lg border-2 border-board-line bg-paper px-2 text-ink"
        onChange={(event) => {
          const chosen = EDGE_UNITS.find((each) => each === event.target.value);
          if (chosen) onChange(chosen);
        }}
      >
        {EDGE_UNITS.map((each) => (
          <option key={each} value={each}>
            {each === 'page' ? t('instruments.pageScale', { unit: gauge.unit }) : t(UNIT_NAMES[each])}
          </option>
        ))}
      </select>
    </label>
  );
}

function possible({ kind }: Instrument, size: number): number {
  if (!isPossible(kind, size)) throw new ImpossibleFigure();
  return size;
}

function written(value: number, decimals: number, { comma }: Gauge): string {
  const text = String(Number(value.toFixed(decimals)));
  return comma ? text.replace('.', ',') : text;
}
