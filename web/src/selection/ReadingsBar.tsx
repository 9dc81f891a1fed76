import type { Mark } from '@doodla/core';
import { boundsOf, paintMark, toSvgPath } from '@doodla/core';
import { Undo2 } from 'lucide-react';
import { useReducer, useEffect } from 'react';
import { asDrawn } from '../desk/cleanDrawing';
import { takeReading } from '../desk/neaten';
import { asWritten } from '../desk/typeWriting';
import { asInk } from '../desk/writtenFormula';
import type { InkOffer, NeatPart, ShapeOffer } from '../desk/shapeOffer';
import type { PageDesk } from '../room/pageDesk';
import type { Stage } from '../stage/stage';
import { useStore } from '../store/useStore';
import { IconButton } from '../ui/IconButton';
import { t } from '../words';
import { CleanDrawings } from './CleanDrawings';
import { groundOf } from './markGround';
import { TypedWords } from './TypedWords';
import { WrittenFormulas } from './WrittenFormulas';

/** Distance from the shape, and what the handles below it take where it is selected; CSS pixels. */
const DISTANCE = 14;
const HANDLES = 22;
/** What the bar takes at the lower edge where it is highest, on a narrow screen; CSS pixels. */
const HEIGHT = { drawings: 164, others: 72 };

/** What else may be meant by what was just neatened, and the ink itself, beside what it became. */
export default function ReadingsBar({ desk, stage }: { desk: PageDesk; stage: Stage }) {
  const offer = useStore(desk.shapeOffer);
  useStore(stage.view);
  const [, changed] = useReducer((count: number) => count + 1, 0);
  useEffect(() => desk.marksChanged.subscribe(changed), [desk]);
  if (!offer || offer.page !== desk.pageId.get()) return null;
  const made = standingFor(offer);
  const marks = made.flatMap((id) => desk.targetMarks?.get(id) ?? []);
  if (marks.length < made.length) return null;
  const { view } = groundOf(marks, desk, stage);
  const bounds = boundsOf(marks)!;
  const bottom = view.y + (bounds.y + bounds.height) * view.scale;
  const top = bottom + DISTANCE + (desk.selection.ids.get().size > 0 ? HANDLES : 0);
  const centre = view.x + (bounds.x + bounds.width / 2) * view.scale;
  return (
    <div
      className="pointer-events-none absolute z-10 flex"
      style={{
        top: `clamp(4px, ${top}px, calc(100% - ${HEIGHT['drawings' in offer ? 'drawings' : 'others']}px))`,
        left: stage.sides.left,
        right: stage.sides.right,
      }}
    >
      <div className="min-w-0 shrink" style={{ flexBasis: Math.max(0, centre - 150 - stage.sides.left) }} />
      <div
        role="toolbar"
        aria-label={t('shapes.readings')}
        onPointerDown={(event) => event.stopPropagation()}
        className="pointer-events-auto flex max-w-full shrink-0 flex-wrap items-stretch rounded-2xl bg-board p-0.5 text-paper shadow-xl forced-colors:border-2"
      >
        {'lines' in offer && <TypedWords offer={offer} desk={desk} />}
        {'drawings' in offer && <CleanDrawings offer={offer} desk={desk} />}
        {'formulas' in offer && <WrittenFormulas offer={offer} desk={desk} />}
        {'parts' in offer && offer.parts.length === 1 && (
          <Readings part={offer.parts[0]!} offer={offer} desk={desk} />
        )}
        <IconButton
          label={asItWas(offer)}
          caption={asItWas(offer)}
          tooltipSide="none"
          className="px-2"
          icon={<Undo2 aria-hidden size={22} />}
          onClick={() => giveBack(desk, offer)}
        />
      </div>
    </div>
  );
}

const asItWas = (offer: InkOffer) =>
  t('lines' in offer || 'formulas' in offer ? 'writing.asWritten' : 'shapes.asDrawn');

/** The marks that the bar is about: what was made, or the ink as long as nothing is. */
function standingFor(offer: InkOffer): readonly string[] {
  if ('lines' in offer) return offer.lines.map(({ mark }) => mark);
  if ('parts' in offer) return offer.parts.map(({ mark }) => mark.id);
  if ('formulas' in offer) return [offer.formulas[offer.now]!.id];
  return offer.taken?.marks ?? offer.ink.map(({ id }) => id);
}

/** Gives the ink back; what was selected stays so. */
function giveBack(desk: PageDesk, offer: InkOffer): void {
  if ('lines' in offer) return asWritten(desk, offer);
  if ('parts' in offer) return choose(desk, offer, 'drawn');
  if ('formulas' in offer) asInk(desk, offer);
  else asDrawn(desk, offer);
  desk.selection.select(offer.ink.map(({ id }) => id));
}

function Readings({ part, offer, desk }: { part: NeatPart; offer: ShapeOffer; desk: PageDesk }) {
  return part.readings.map((reading, i) => (
    <IconButton
      key={reading.kind}
      label={t(`shapes.${reading.kind}`)}
      caption={t(`shapes.${reading.kind}`)}
      tooltipSide="none"
      active={i === part.taken}
      className="max-w-24 px-2"
      icon={<ReadingIcon mark={{ ...part.mark, ...reading.body }} />}
      onClick={() => {
        if (i !== part.taken) choose(desk, offer, i);
      }}
    />
  ));
}

/** Takes another reading; what was selected stays so. */
function choose(desk: PageDesk, offer: ShapeOffer, reading: number | 'drawn'): void {
  const wasSelected = desk.selection.ids.get().size > 0;
  takeReading(desk, offer, reading);
  const next = desk.shapeOffer.get();
  const now = next && 'parts' in next ? next.parts.map(({ mark }) => mark.id) : undefined;
  if (wasSelected) desk.selection.select(now ?? offer.parts.flatMap(({ ink }) => ink.map(({ id }) => id)));
}

function ReadingIcon({ mark }: { mark: Mark }) {
  const { x, y, width, height } = boundsOf([mark])!;
  const side = Math.max(width, height, 1);
  const line = side / 13;
  return (
    <svg
      viewBox={`${x + width / 2 - side / 2 - line} ${y + height / 2 - side / 2 - line} ${side + 2 * line} ${side + 2 * line}`}
      className="size-6"
      aria-hidden
    >
      {paintMark(mark).map((item, i) =>
        'path' in item ? (
          <path
            key={i}
            d={toSvgPath(item.path)}
            fill={item.kind === 'fill' ? 'currentColor' : 'none'}
            stroke="currentColor"
            strokeWidth={line}
            strokeLinejoin="round"
          />
        ) : null,
      )}
    </svg>
  );
}
