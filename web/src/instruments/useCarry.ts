import type { Instrument } from '@doodla/core/instruments';
import type { Point } from '@doodla/core';
import type { SnapField } from '@doodla/core/construct';
import { carried, laidOnCorner } from '@doodla/core/instruments';
import type { PointerEvent } from 'react';
import { useState } from 'react';
import { edgesNear, snapField } from '../desk/construct';
import { layInstrument } from '../desk/instruments';
import type { PageDesk } from '../room/pageDesk';
import type { Stage } from '../stage/stage';
import { TOUCH_REACH } from '../tools/toolWork';

/** What hands hold: how it lay when the last finger came or went, and where each finger was then and is now. */
interface Held {
  start: Instrument | undefined;
  now: Instrument | undefined;
  fingers: Map<number, { from: Point; to: Point }>;
  field: SnapField | undefined;
}

/** Handlers by which an instrument is carried with one finger, and turned with two. */
export function useCarry(instrument: Instrument, desk: PageDesk, stage: Stage) {
  const [held] = useState<Held>(() => ({
    start: undefined,
    now: undefined,
    fingers: new Map(),
    field: undefined,
  }));
  const regrip = (now: Instrument) => {
    held.start = held.now = now;
    for (const finger of held.fingers.values()) finger.from = finger.to;
  };
  const reach = () => (2 * TOUCH_REACH) / stage.view.get().scale;
  const follow = (moving: boolean) => {
    if (!held.start) return;
    const fingers = [...held.fingers.values()];
    const froms = fingers.map(({ from }) => from);
    const to = fingers.map((finger) => finger.to);
    held.now = snapped(carried(held.start, froms, to), held.field, desk, reach());
    layInstrument(desk, held.now, moving);
  };
  const letGo = (event: PointerEvent<SVGElement>) => {
    if (!held.fingers.has(event.pointerId)) return;
    follow(held.fingers.size > 1);
    held.fingers.delete(event.pointerId);
    if (held.now) regrip(held.now);
    if (held.fingers.size === 0) held.start = undefined;
  };
  return {
    onPointerDown(event: PointerEvent<SVGElement>): void {
      event.stopPropagation();
      event.currentTarget.setPointerCapture(event.pointerId);
      if (held.fingers.size === 0) held.field = fieldFor(instrument, desk);
      regrip(held.now && held.fingers.size > 0 ? held.now : instrument);
      const at = placeOf(event, stage);
      held.fingers.set(event.pointerId, { from: at, to: at });
    },
    onPointerMove(event: PointerEvent<SVGElement>): void {
      const finger = held.fingers.get(event.pointerId);
      if (!finger) return;
      finger.to = placeOf(event, stage);
      follow(true);
    },
    onPointerUp: letGo,
    onPointerCancel: letGo,
  };
}

/** Where on the page a pointer is. */
export function placeOf(event: PointerEvent, stage: Stage): Point {
  const box = stage.host.getBoundingClientRect();
  const { x, y } = stage.toPage(event.clientX - box.left, event.clientY - box.top);
  return [x, y];
}

/** What an instrument meets that is laid with a point. */
export function fieldFor({ kind, x, y }: Instrument, desk: PageDesk): SnapField | undefined {
  return kind === 'compasses' || kind === 'dividers' ? snapField(desk, { x, y }) : undefined;
}

/** Laid on what is near: compasses and dividers with their point, a protractor with its middle and base line. */
export function snapped<I extends Instrument>(
  instrument: I,
  field: SnapField | undefined,
  desk: PageDesk,
  reach: number,
): Instrument {
  if (instrument.kind === 'protractor') return laidOnCorner(instrument, edgesNear(desk, instrument), reach);
  const at = field?.place([instrument.x, instrument.y], reach)?.at;
  return at ? { ...instrument, x: at[0], y: at[1] } : instrument;
}
