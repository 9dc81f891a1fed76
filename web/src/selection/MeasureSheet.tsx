import type { Mark } from '@doodla/core';
import { FIGURES } from '@doodla/core';
import type { AngleKind, Figures, Outline, PolygonFact, Unit } from '@doodla/core/measure';
import {
  angleKind,
  angleSum,
  figuresOf,
  gaugeOf,
  ImpossibleFigure,
  outlineOf,
  ownGauge,
  polygonFacts,
  unitOf,
  UNITS,
} from '@doodla/core/measure';
import { useState } from 'react';
import type { Measurable } from '../desk/measures';
import {
  isMeasurable,
  pageGauge,
  setAngle,
  setGauge,
  setRadius,
  setSide,
  showFigure,
  writesComma,
} from '../desk/measures';
import type { PageDesk } from '../room/pageDesk';
import { Switch } from '../ui/Switch';
import type { TextName } from '../words/textNames';
import { t } from '../words';
import { cornerLetter } from './cornerLetter';
import { FigureField } from '../ui/FigureField';

/** More corners than that are not listed one by one. */
const MOST_LISTED = 10;

const UNIT_NAMES: Record<Unit, TextName> = {
  mm: 'measures.mm',
  cm: 'measures.cm',
  inch: 'measures.inch',
  squares: 'measures.squares',
};

/** What is shown of lines and shapes, in which unit; of a single one its lengths and angles, to be typed. */
export default function MeasureSheet({ marks, desk }: { marks: readonly Mark[]; desk: PageDesk }) {
  const measurable = marks.filter(isMeasurable);
  const [single] = measurable;
  return (
    <>
      <div className="grid grid-cols-2 gap-x-4">
        {FIGURES.map((figure) => (
          <Switch
            key={figure}
            label={t(`measures.${figure}`)}
            checked={measurable.every(({ measures }) => measures?.shown.includes(figure))}
            onChange={(on) => showFigure(desk, measurable, figure, on)}
          />
        ))}
      </div>
      <UnitChoice desk={desk} />
      {single && measurable.length === 1 && <FiguresOf mark={single} desk={desk} />}
    </>
  );
}

function UnitChoice({ desk }: { desk: PageDesk }) {
  const gauge = pageGauge(desk);
  const unit = unitOf(gauge, desk.page);
  const choice = 'min-h-11 rounded-lg border-2 border-board-line bg-paper px-2 text-ink';
  return (
    <div className="grid grid-cols-[1fr_auto] gap-2 text-sm">
      <label className="flex flex-col gap-1">
        <span className="font-bold">{t('measures.unit')}</span>
        <select
          value={unit ?? 'own'}
          className={choice}
          onChange={(event) => {
            const chosen = UNITS.find((each) => each === event.target.value);
            if (chosen) setGauge(desk, gaugeOf(chosen, desk.page, writesComma()));
          }}
        >
          {UNITS.map((each) => (
            <option key={each} value={each}>
              {t(UNIT_NAMES[each])}
            </option>
          ))}
          {unit === undefined && <option value="own">{t('measures.ownScale', { unit: gauge.unit })}</option>}
        </select>
      </label>
      <label className="flex flex-col gap-1">
        <span className="font-bold">{t('measures.decimals')}</span>
        <select
          value={gauge.decimals}
          className={choice}
          onChange={(event) => setGauge(desk, { ...gauge, decimals: Number(event.target.value) })}
        >
          {[0, 1, 2, 3].map((count) => (
            <option key={count} value={count}>
              {count}
            </option>
          ))}
        </select>
      </label>
    </div>
  );
}

function FiguresOf({ mark, desk }: { mark: Measurable; desk: PageDesk }) {
  const outline = outlineOf(mark);
  const figures = figuresOf(outline);
  const corners = outline.kind === 'corners' ? outline.corners.length : 0;
  const scale = <OwnScale key={mark.id} stretch={figures.perimeter} desk={desk} />;
  return (
    <>
      {corners > 0 && corners <= MOST_LISTED && outline.kind === 'corners' && (
        <CornerFigures mark={mark} figures={figures} closed={outline.closed} desk={desk} />
      )}
      {figures.radius !== undefined && <Radius mark={mark} radius={figures.radius} desk={desk} />}
      <Facts outline={outline} figures={figures} />
      {desk.isTeacher && figures.area === undefined && figures.sides.length === 1 && scale}
    </>
  );
}

interface CornerFiguresProps {
  mark: Measurable;
  figures: Figures;
  closed: boolean;
  desk: PageDesk;
}

/** Sides and angles by their letters; what is typed, the shape obeys. */
function CornerFigures({ mark, figures, closed, desk }: CornerFiguresProps) {
  const gauge = mark.measures?.gauge ?? pageGauge(desk);
  const count = figures.angles.length;
  const said = (value: number, decimals: number) => {
    const text = value.toFixed(decimals);
    return gauge.comma ? text.replace('.', ',') : text;
  };
  const [a, b, c] = [0, 1, 2].map(cornerLetter);
  return (
    <fieldset className="flex flex-col gap-1.5">
      <legend className="mb-1 text-sm font-bold">{t('measures.typed')}</legend>
      {figures.sides.map((side, i) => (
        <FigureField
          key={`side ${i}`}
          label={`${cornerLetter(i)}${cornerLetter((i + 1) % count)}`}
          value={said(side / gauge.per, Math.max(gauge.decimals, 1))}
          unit={gauge.unit}
          onChange={(value) => setSide(desk, mark, i, value * gauge.per)}
        />
      ))}
      {figures.angles.map((angle, i) =>
        angle === undefined ? null : (
          <FigureField
            key={`angle ${i}`}
            label={`∠${cornerLetter(i)}`}
            value={said(angle, 1)}
            unit="°"
            note={t(ANGLE_NAMES[angleKind(angle)])}
            onChange={(value) => setAngle(desk, mark, i, value)}
          />
        ),
      )}
      {count > 2 && (
        <p className="text-sm">
          {t(closed ? 'measures.whatStays' : 'measures.whatStaysOfALine', { a, b, c })}
        </p>
      )}
    </fieldset>
  );
}

function Radius({ mark, radius, desk }: { mark: Measurable; radius: number; desk: PageDesk }) {
  const gauge = mark.measures?.gauge ?? pageGauge(desk);
  const text = (radius / gauge.per).toFixed(Math.max(gauge.decimals, 1));
  return (
    <FigureField
      label={t('measures.radius')}
      value={gauge.comma ? text.replace('.', ',') : text}
      unit={gauge.unit}
      onChange={(value) => {
        if (!(value > 0)) throw new ImpossibleFigure();
        setRadius(desk, mark, value * gauge.per);
      }}
    />
  );
}

const ANGLE_NAMES: Record<AngleKind, TextName> = {
  acute: 'measures.acute',
  right: 'measures.right',
  obtuse: 'measures.obtuse',
  straight: 'measures.straight',
  reflex: 'measures.reflex',
};

const FACT_NAMES: Record<PolygonFact, TextName> = {
  equilateral: 'measures.equilateral',
  isosceles: 'measures.isosceles',
  scalene: 'measures.scalene',
  acuteTriangle: 'measures.acuteTriangle',
  rightTriangle: 'measures.rightTriangle',
  obtuseTriangle: 'measures.obtuseTriangle',
  square: 'shapes.square',
  rectangle: 'shapes.rectangle',
  rhombus: 'shapes.rhombus',
  parallelogram: 'shapes.parallelogram',
  trapezium: 'shapes.trapezium',
  kite: 'shapes.kite',
  regular: 'measures.regular',
};

function Facts({ outline, figures }: { outline: Outline; figures: Figures }) {
  if (outline.kind !== 'corners' || !outline.closed) return null;
  const facts = polygonFacts(figures).map((fact) => t(FACT_NAMES[fact]));
  return (
    <p className="text-sm">
      {t('measures.angleSum', { sum: angleSum(figures) })}
      {facts.length > 0 && ` · ${facts.join(' · ')}`}
    </p>
  );
}

/** A line whose length is known gives the page its scale, such as on a map. */
function OwnScale({ stretch, desk }: { stretch: number; desk: PageDesk }) {
  const [unit, setUnit] = useState('km');
  return (
    <fieldset className="flex flex-col gap-1.5">
      <legend className="mb-1 text-sm font-bold">{t('measures.scaleByThis')}</legend>
      <label className="flex items-center gap-2 text-sm">
        <span className="min-w-10">{t('measures.itsUnit')}</span>
        <input
          value={unit}
          maxLength={12}
          onChange={(event) => setUnit(event.target.value)}
          onKeyDown={(event) => event.stopPropagation()}
          className="min-h-11 w-20 rounded-lg border-2 border-board-line bg-paper px-2 text-ink"
        />
      </label>
      <FigureField
        label={t('measures.itsLength')}
        value=""
        unit={unit}
        onChange={(length) => {
          if (!(length > 0) || unit.trim() === '') throw new ImpossibleFigure();
          setGauge(desk, ownGauge(stretch, length, unit.trim(), pageGauge(desk)));
        }}
      />
    </fieldset>
  );
}
