import type { InkStyle } from '@doodla/core';
import { useRef } from 'react';
import { toast } from 'sonner';
import { useStore } from '../store/useStore';
import { afterRest } from '../ui/afterRest';
import { classes } from '../ui/classes';
import type { PageDesk } from '../room/pageDesk';
import { isSamePen, placesThatDiffer } from '../desk/penCase';
import { t } from '../words';
import { NATURE_NAMES } from '../tools/pen/natures';

const LONG_PRESS_MS = 550;

/** The pen case: ready pens, one tap away; a long press or right click puts the pen in hand into its place. */
export function ReadyPens({ desk }: { desk: PageDesk }) {
  const { ready } = useStore(desk.penCase);
  const { penCase } = desk;
  // Who has one colour has no use for pens that differ in nothing else.
  const places = penCase.fixedColour === undefined ? ready.map((_, i) => i) : placesThatDiffer(ready);
  return (
    <div
      role="group"
      aria-label={t('reach.penCase')}
      className="grid grid-cols-4 gap-1 border-t border-board-hover pt-1"
    >
      {places.map((i, n) => (
        <ReadyPen
          key={i}
          pen={ready[i]!}
          number={n + 1}
          inHand={isSamePen(ready[i]!, penCase.ink)}
          disabled={!desk.mayWrite}
          onTake={() => {
            penCase.takeReady(ready[i]!);
            desk.setMode('write');
          }}
          onKeep={() => {
            if (!penCase.ink) return;
            penCase.keepReady(i);
            toast(t('reach.placeOfThePenCase', { number: n + 1 }), { id: 'pen-case' });
          }}
        />
      ))}
    </div>
  );
}

interface ReadyPenProps {
  pen: InkStyle;
  number: number;
  inHand: boolean;
  disabled: boolean;
  onTake(): void;
  onKeep(): void;
}

function ReadyPen({ pen, number, inHand, disabled, onTake, onKeep }: ReadyPenProps) {
  const wait = useRef<() => void>(undefined);
  const kept = useRef(false);
  const press = () => {
    kept.current = false;
    wait.current = afterRest(LONG_PRESS_MS, () => {
      kept.current = true;
      onKeep();
    });
  };
  const release = () => wait.current?.();
  return (
    <button
      type="button"
      disabled={disabled}
      aria-pressed={inHand}
      aria-label={t('reach.readyPen', { number, nature: NATURE_NAMES[pen.nature] })}
      title={t('reach.tapToTakeHoldOr')}
      onPointerDown={press}
      onPointerUp={release}
      onPointerLeave={release}
      onContextMenu={(event) => {
        event.preventDefault();
        release();
        onKeep();
      }}
      onClick={() => {
        if (!kept.current) onTake();
      }}
      className={classes(
        'grid h-11 place-items-center rounded-xl border-2 bg-paper disabled:opacity-40',
        inHand ? 'border-chalk ring-2 ring-chalk' : 'border-board-line',
      )}
    >
      <PenDot pen={pen} />
    </button>
  );
}

/** What a pen writes like. */
export function PenDot({ pen }: { pen: InkStyle }) {
  return (
    <span
      className={classes(
        'w-5 rounded-full border border-paper-line',
        pen.nature === 'chalk' && 'border-dotted',
      )}
      style={{
        background: pen.colour,
        height: Math.min(20, Math.max(4, pen.width * 0.9)),
        opacity: pen.opacity,
      }}
    />
  );
}
