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

/** An instrument in somebody's hands: how it lay when the last finger came or went, and where each was then and is now. */
class Carried {
  private readonly fingers = new Map<number, { from: Point; to: Point }>();
  private start: Instrument | undefined;
  private now: Instrument | undefined;
  private field: SnapField | undefined;

  /** A finger takes hold; `lying` is how the instrument lies if it is the first. */
  take(finger: number, at: Point, lying: Instrument, field: () => SnapField | undefined): void {
    const isFirst = this.fingers.size === 0;
    if (isFirst) this.field = field();
    this.regrip(isFirst ? lying : (this.now ?? lying));
    this.fingers.set(finger, { from: at, to: at });
  }

  has(finger: number): boolean {
    return this.fingers.has(finger);
  }

  /** A finger has moved; how the instrument lies now, as `settle` lays it on what is near. */
  move(finger: number, at: Point, settle: Settle): Instrument | undefined {
    const held = this.fingers.get(finger);
    if (!held || !this.start) return undefined;
    held.to = at;
    const fingers = [...this.fingers.values()];
    const froms = fingers.map(({ from }) => from);
    const to = fingers.map((each) => each.to);
    this.now = settle(carried(this.start, froms, to), this.field);
    return this.now;
  }

  /** A finger lets go. Returns how the instrument lies, and whether it is still held. */
  letGo(finger: number): { lies: Instrument | undefined; isHeld: boolean } {
    this.fingers.delete(finger);
    if (this.now) this.regrip(this.now);
    return { lies: this.now, isHeld: this.fingers.size > 0 };
  }

  private regrip(now: Instrument): void {
    this.start = this.now = now;
    for (const finger of this.fingers.values()) finger.from = finger.to;
  }
}

type Settle = (instrument: Instrument, field: SnapField | undefined) => Instrument;

/** Handlers by which an instrument is carried with one finger, and turned with two. */
export function useCarry(instrument: Instrument, desk: PageDesk, stage: Stage) {
  const [held] = useState(() => new Carried());
  const settle: Settle = (moved, field) =>
    snapped(moved, field, desk, (2 * TOUCH_REACH) / stage.view.get().scale);
  const letGo = ({ pointerId }: PointerEvent<SVGElement>) => {
    if (!held.has(pointerId)) return;
    const { lies, isHeld } = held.letGo(pointerId);
    if (lies) layInstrument(desk, lies, isHeld);
  };
  return {
    onPointerDown(event: PointerEvent<SVGElement>): void {
      event.stopPropagation();
      event.currentTarget.setPointerCapture(event.pointerId);
      held.take(event.pointerId, placeOf(event, stage), instrument, () => fieldFor(instrument, desk));
    },
    onPointerMove(event: PointerEvent<SVGElement>): void {
      const lies = held.move(event.pointerId, placeOf(event, stage), settle);
      if (lies) layInstrument(desk, lies, true);
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
