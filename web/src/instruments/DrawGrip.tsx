import type { Point } from '@doodla/core';
import type { Compasses } from '@doodla/core/instruments';
import { onPage } from '@doodla/core/instruments';
import { PenLine } from 'lucide-react';
import type { PointerEvent } from 'react';
import type { PenPoint, RunningGesture } from '../desk/gesture';
import type { PageDesk } from '../room/pageDesk';
import type { Stage } from '../stage/stage';
import { takeArrow } from '../ui/arrowKeys';
import { Grip } from '../ui/Grip';
import { useDrag } from '../ui/useDrag';
import { layInstrument, putInk } from '../desk/instruments';
import { arcOf } from '@doodla/core/instruments';
import { t } from '../words';
import { turnedByKeys } from './grips';
import { placeOf } from './useCarry';

/** How far an arrow key draws, degrees. */
const KEY_STEP = 5;

interface Turning {
  gesture: RunningGesture | undefined;
  compasses: Compasses;
  from: Point;
  began: number;
}

interface DrawGripProps {
  compasses: Compasses;
  desk: PageDesk;
  stage: Stage;
  place: { left: number; top: number };
}

/** The leg with the pencil: turned by hand it draws, with the pen in hand. */
export function DrawGrip({ compasses, desk, stage, place }: DrawGripProps) {
  const pencilAt = (turning: Turning, to: Point, time: number): PenPoint => {
    const { x, y } = turning.compasses;
    const angle = (at: Point) => (Math.atan2(at[1] - y, at[0] - x) * 180) / Math.PI;
    const turned = turnedByKeys(turning.compasses, angle(to) - angle(turning.from));
    const [px, py] = onPage(turned, [turned.radius, 0]);
    return { x: px, y: py, pressure: 0.5, time, steady: false, centred: false };
  };
  const move = (event: PointerEvent, turning: Turning) =>
    turning.gesture?.move([pencilAt(turning, placeOf(event, stage), event.timeStamp - turning.began)]);
  const drag = useDrag<Turning, HTMLButtonElement>({
    begin(event) {
      event.stopPropagation();
      const { tool } = desk.penCase.get();
      if (tool !== 'pen' && tool !== 'highlighter') desk.takeTool('pen');
      else desk.setMode('write');
      const from = placeOf(event, stage);
      const turning: Turning = { gesture: undefined, compasses, from, began: event.timeStamp };
      if (desk.mayWrite) turning.gesture = stage.begin(pencilAt(turning, from, 0), false, false);
      return turning;
    },
    move,
    end(event, turning, dropped) {
      if (dropped) move(event, turning);
      turning.gesture?.end();
    },
  });
  return (
    <Grip
      label={t('instruments.draw')}
      {...place}
      icon={<PenLine aria-hidden />}
      handlers={{
        ...drag,
        onKeyDown(event) {
          const arrow = takeArrow(event);
          if (!arrow || !desk.mayWrite) return;
          const degrees = (arrow[0] + arrow[1]) * KEY_STEP;
          putInk(desk, arcOf(compasses, degrees));
          layInstrument(desk, turnedByKeys(compasses, degrees));
        },
      }}
    />
  );
}
