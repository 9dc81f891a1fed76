import type { Rect, Transform } from '@doodla/core';
import { growRect } from '@doodla/core';
import { useStore } from '@web/store/useStore';
import { Grip } from '@web/ui/Grip';
import { useDrag } from '@web/ui/useDrag';
import { BringToFront, Copy, Maximize2, RotateCw, SendToBack, Trash2 } from 'lucide-react';
import { say } from '../../words';
import type { Tab } from '../tab';
import { byArrows } from './arrows';
import { BoardButton } from './BoardButton';

/** How far the frame is from what is selected, CSS pixels. */
const AROUND = 8;

/** The frame round what is selected: turns it, makes it larger, and what else is done with it. */
export function SelectionFrame({ tab }: { tab: Tab }) {
  useStore(tab.changes);
  useStore(tab.desk.selection.ids);
  const bounds = tab.desk.selection.bounds();
  if (!bounds) return null;
  const box = growRect(bounds, AROUND);
  return (
    <div className="absolute" style={{ left: box.x, top: box.y, width: box.width, height: box.height }}>
      <div className="absolute inset-0 rounded border-2 border-dashed border-board" />
      <Handles tab={tab} bounds={bounds} box={box} />
      <Bar tab={tab} />
    </div>
  );
}

function Handles({ tab, bounds, box }: { tab: Tab; bounds: Rect; box: Rect }) {
  const { selection } = tab.desk;
  const grow = useDrag({
    begin: (event) => ({ x: event.clientX, y: event.clientY, bounds }),
    move: () => undefined,
    end: (event, grip, dropped) => {
      if (dropped) selection.apply(larger(grip.bounds, event.clientX - grip.x, event.clientY - grip.y));
    },
  });
  const [cx, cy] = [bounds.x + bounds.width / 2, bounds.y + bounds.height / 2];
  const angle = (x: number, y: number) => (Math.atan2(y + scrollY - cy, x + scrollX - cx) * 180) / Math.PI;
  const turn = useDrag({
    begin: (event) => angle(event.clientX, event.clientY),
    move: () => undefined,
    end: (event, from, dropped) => {
      const degrees = Math.round(angle(event.clientX, event.clientY) - from);
      if (dropped) selection.apply({ kind: 'turn', degrees, x: cx, y: cy });
    },
  });
  return (
    <>
      <Grip
        label={say('resize')}
        left={box.width}
        top={box.height}
        icon={<Maximize2 aria-hidden size={18} className="rotate-90" />}
        handlers={{ ...grow, ...byArrows((dx, dy) => selection.apply(larger(bounds, dx, dy))) }}
      />
      <Grip
        label={say('turn')}
        left={0}
        top={0}
        icon={<RotateCw aria-hidden size={18} />}
        handlers={{
          ...turn,
          ...byArrows((dx, dy) => selection.apply({ kind: 'turn', degrees: (dx + dy) / 4, x: cx, y: cy })),
        }}
      />
    </>
  );
}

/** Least part of its size to which something is made smaller in one go. */
const LEAST = 0.05;

/** Larger or smaller by what its lower right corner was dragged, in proportion. */
function larger({ x, y, width, height }: Rect, dx: number, dy: number): Transform {
  const [w, h] = [Math.max(1, width), Math.max(1, height)];
  const k = Math.max(LEAST, ((w + dx) * w + (h + dy) * h) / (w * w + h * h));
  return { kind: 'resize', fx: k, fy: k, x, y };
}

function Bar({ tab: { desk } }: { tab: Tab }) {
  const { selection } = desk;
  return (
    <div
      role="toolbar"
      className="pointer-events-auto absolute start-0 top-full mt-7 flex w-max gap-1 rounded-2xl bg-board p-1 shadow-xl"
    >
      <BoardButton
        label={say('duplicate')}
        keyName="Ctrl+D"
        icon={<Copy aria-hidden size={20} />}
        onClick={() => selection.duplicate()}
      />
      <BoardButton
        label={say('front')}
        icon={<BringToFront aria-hidden size={20} />}
        onClick={() => selection.reorder('front')}
      />
      <BoardButton
        label={say('back')}
        icon={<SendToBack aria-hidden size={20} />}
        onClick={() => selection.reorder('back')}
      />
      <BoardButton
        label={say('delete')}
        keyName="Delete"
        icon={<Trash2 aria-hidden size={20} />}
        onClick={() => selection.remove()}
      />
    </div>
  );
}
