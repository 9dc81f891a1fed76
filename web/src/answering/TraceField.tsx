import type { Mark, Point } from '@doodla/core';
import { markBounds } from '@doodla/core';
import type { KeyboardEvent } from 'react';
import { useState } from 'react';
import { useDrag } from '../ui/useDrag';
import { t } from '../words';
import { sayMark } from '../words/marks';
import { placeOf } from './places';

const ARROWS: Readonly<Record<string, Point>> = {
  ArrowLeft: [-1, 0],
  ArrowRight: [1, 0],
  ArrowUp: [0, -1],
  ArrowDown: [0, 1],
};

interface Hand {
  from: Point;
  to: Point;
}

interface TraceFieldProps {
  mark: Mark;
  scale: number;
  toPage(event: { clientX: number; clientY: number }): Point;
  onTraced(hand: Hand): void;
}

/** A mark on which lines are found: by drawing along them, or by keys that go from end to end. */
export function TraceField({ mark, scale, toPage, onTraced }: TraceFieldProps) {
  const [hand, setHand] = useState<Hand>();
  const [begun, setBegun] = useState(false);
  const { step } = mark.rule!.trace!;
  const rect = markBounds(mark);
  const drag = useDrag<Hand>({
    begin(event) {
      const from = toPage(event);
      return { from, to: from };
    },
    move(event, grip) {
      grip.to = toPage(event);
      setHand({ ...grip });
    },
    end(_event, grip, dropped) {
      setHand(undefined);
      if (dropped && Math.hypot(grip.to[0] - grip.from[0], grip.to[1] - grip.from[1]) > step / 2)
        onTraced(grip);
    },
  });
  const first: Point = [rect.x + step / 2, rect.y + step / 2];
  const pressed = (event: KeyboardEvent) => {
    const arrow = ARROWS[event.key];
    const { from, to } = hand ?? { from: first, to: first };
    if (arrow) {
      const next: Point = [to[0] + arrow[0] * step, to[1] + arrow[1] * step];
      setHand({ from: begun ? from : next, to: next });
    } else if (event.key === 'Enter' || event.key === ' ') {
      if (begun) onTraced({ from, to });
      setHand({ from: to, to });
      setBegun(!begun);
    } else if (event.key === 'Escape' && hand) {
      setHand(undefined);
      setBegun(false);
    } else return;
    event.preventDefault();
    event.stopPropagation();
  };
  const at = ([x, y]: Point) => ({ x: (x - rect.x) * scale, y: (y - rect.y) * scale });
  return (
    <div
      role="application"
      tabIndex={0}
      aria-label={t('answers.findOn', { name: sayMark(mark) })}
      title={t('answers.howToFind')}
      {...drag}
      onKeyDown={pressed}
      onBlur={() => {
        setHand(undefined);
        setBegun(false);
      }}
      style={placeOf(rect, scale)}
      className="pointer-events-auto absolute cursor-crosshair touch-none rounded-md focus-visible:outline-3 focus-visible:outline-offset-2"
    >
      {hand && (
        <svg aria-hidden className="pointer-events-none absolute size-full overflow-visible">
          <line
            x1={at(hand.from).x}
            y1={at(hand.from).y}
            x2={at(hand.to).x}
            y2={at(hand.to).y}
            className="stroke-board"
            strokeOpacity={0.4}
            strokeWidth={step * scale * 0.8}
            strokeLinecap="round"
          />
        </svg>
      )}
    </div>
  );
}
