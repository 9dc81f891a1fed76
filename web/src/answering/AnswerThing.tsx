import type { Mark, Point, Rect, Transform } from '@doodla/core';
import { boundsOf, unionRect } from '@doodla/core';
import type { AnsweredPage } from '@doodla/core/answers';
import { movedBy, seenBounds } from '@doodla/core/answers';
import type { KeyboardEvent } from 'react';
import { memo, useState } from 'react';
import type { PictureCache } from '../pictures/pictureCache';
import { classes } from '../ui/classes';
import { useDrag } from '../ui/useDrag';
import { t } from '../words';
import { sayMark } from '../words/marks';
import { placeOf, sizeOf } from './places';
import { looksSame } from './seenTogether';
import { ThingPicture } from './ThingPicture';

/** So far a pointer goes before it drags, CSS pixels. */
const DRAG_DISTANCE = 6;
/** So far a key carries, page units. */
const KEY_STEP = 20;
const ARROWS: Readonly<Record<string, Point>> = {
  ArrowLeft: [-1, 0],
  ArrowRight: [1, 0],
  ArrowUp: [0, -1],
  ArrowDown: [0, 1],
};

/** Where a hand took something, and how far it has carried it; page units. */
interface Carry {
  from: Point;
  to: Point;
}

interface AnswerThingProps {
  /** As it was made; of what was pulled from a pile, that pile. */
  thing: Mark;
  /** What was pulled from a pile. */
  copy?: Mark;
  page: AnsweredPage;
  scale: number;
  pictures: PictureCache;
  /** Where a pointer is on the page. */
  toPage(event: { clientX: number; clientY: number }): Point;
  /** What is seen of it and of what moves with it. */
  seen: readonly Mark[];
  /** May be that of an earlier drawing: it does what is right by then. */
  onTap(): void;
  onDrop(hand: Carry): void;
}

/** Something that is tapped or carried, by hand or by keys. */
export const AnswerThing = memo(function AnswerThing(props: AnswerThingProps) {
  const { thing, copy, seen, page, scale, pictures, toPage, onTap, onDrop } = props;
  const [carry, setCarry] = useState<Carry>();
  const { moves, tap, pair } = thing.rule ?? {};
  const drag = useDrag<Carry & { moved: boolean; at: Point }>({
    begin(event) {
      const from = toPage(event);
      return { from, to: from, moved: false, at: [event.clientX, event.clientY] };
    },
    move(event, grip) {
      grip.moved ||= Math.hypot(event.clientX - grip.at[0], event.clientY - grip.at[1]) >= DRAG_DISTANCE;
      grip.to = toPage(event);
      if (grip.moved && moves) setCarry({ from: grip.from, to: grip.to });
    },
    end(_event, { moved, from, to }, dropped) {
      setCarry(undefined);
      if (!dropped) return;
      if (!moved) onTap();
      else if (moves) onDrop({ from, to });
    },
  });
  const drawn = boundsOf(seen);
  const rect = seen
    .map(seenBounds)
    .reduce<Rect | undefined>((all, one) => (all ? unionRect(all, one) : one), undefined);
  if (!rect || !drawn) return null;
  const pressed = (event: KeyboardEvent) => {
    const step = ARROWS[event.key];
    const isPress = event.key === 'Enter' || event.key === ' ';
    if (event.key === 'Escape' && carry) setCarry(undefined);
    else if (isPress && carry) {
      setCarry(undefined);
      onDrop(carry);
    } else if (isPress && (tap ?? pair)) onTap();
    else if (isPress && moves) setCarry(heldAt(rect));
    else if (step && moves) setCarry(carriedOn(carry ?? heldAt(rect), step));
    else return;
    event.preventDefault();
    event.stopPropagation();
  };
  const find = (id: string) => page.now(id) ?? page.original(id);
  const [first] = seen;
  const transform =
    carry && moves && movedBy(copy ?? (moves.copies ? thing : first!), moves.movement, carry, find);
  return (
    <>
      <button
        type="button"
        aria-label={t(moves ? 'answers.moveThing' : 'answers.tapThing', { name: sayMark(thing) })}
        title={moves ? t('answers.howToMove') : undefined}
        {...drag}
        onKeyDown={pressed}
        onBlur={() => setCarry(undefined)}
        style={placeOf(rect, scale)}
        className={classes(
          'pointer-events-auto absolute touch-none rounded-md focus-visible:outline-3 focus-visible:outline-offset-2',
          moves ? 'cursor-grab' : 'cursor-pointer',
          carry && 'cursor-grabbing',
        )}
      />
      {transform && (
        <div
          className="pointer-events-none absolute z-10 drop-shadow-xl"
          style={{ ...sizeOf(drawn, scale), ...carriedStyle(transform, drawn, scale) }}
        >
          <ThingPicture marks={seen} rect={drawn} scale={scale} pictures={pictures} />
        </div>
      )}
    </>
  );
}, looksSame);

const heldAt = ({ x, y, width, height }: Rect): Carry => {
  const middle: Point = [x + width / 2, y + height / 2];
  return { from: middle, to: middle };
};

const carriedOn = ({ from, to }: Carry, [x, y]: Point): Carry => ({
  from,
  to: [to[0] + x * KEY_STEP, to[1] + y * KEY_STEP],
});

function carriedStyle(transform: Transform, { x, y }: Rect, scale: number) {
  if (transform.kind === 'turn') {
    const origin = `${(transform.x - x) * scale}px ${(transform.y - y) * scale}px`;
    return { transform: `rotate(${transform.degrees}deg)`, transformOrigin: origin };
  }
  if (transform.kind !== 'move') return {};
  return { transform: `translate(${transform.dx * scale}px, ${transform.dy * scale}px)` };
}
