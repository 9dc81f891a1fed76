import type { Rect, Timer } from '@doodla/core';
import { timerElapsed, timerLeft, timerText } from '@doodla/core';
import { chime } from '@web/focus/chime';
import { useStore } from '@web/store/useStore';
import { Grip } from '@web/ui/Grip';
import { Slider } from '@web/ui/Slider';
import { useDrag } from '@web/ui/useDrag';
import {
  ChevronDown,
  ChevronLeft,
  ChevronRight,
  ChevronUp,
  Maximize2,
  Move,
  Pause,
  Play,
  RotateCcw,
  X,
} from 'lucide-react';
import type { ReactNode } from 'react';
import { useEffect, useState } from 'react';
import { say } from '../../words';
import type { Tab } from '../tab';
import type { Attention, Focus } from './attention';
import { byArrows } from './arrows';
import { BoardButton } from './BoardButton';
import { MagnifierView } from './MagnifierView';

/** Least size of what leads the eye, CSS pixels. */
const LEAST = 60;

/** What leads the eye over the page, and the time. */
export function FocusThings({ tab, attention }: { tab: Tab; attention: Attention }) {
  const focus = useStore(attention.focus);
  const countdown = useStore(attention.countdown);
  const set = (next: Focus) => attention.focus.set(next);
  const putAway = () => attention.focus.set(undefined);
  return (
    <>
      {focus?.kind === 'spotlight' && <SpotlightView focus={focus} onChange={set} onPutAway={putAway} />}
      {focus?.kind === 'cover' && <CoverView box={focus.box} onChange={set} onPutAway={putAway} />}
      {focus?.kind === 'magnifier' && (
        <Magnifier tab={tab} focus={focus} onChange={set} onPutAway={putAway} />
      )}
      {countdown && <CountdownView countdown={countdown} attention={attention} />}
    </>
  );
}

interface ViewProps<Of extends Focus> {
  focus: Of;
  onChange(focus: Focus): void;
  onPutAway(): void;
}

/** Drags a box of the window, or moves it by keys; `how` says what it becomes. */
function useBox(box: Rect, how: (box: Rect, dx: number, dy: number) => Rect, onChange: (box: Rect) => void) {
  const drag = useDrag({
    begin: (event) => ({ x: event.clientX, y: event.clientY, box }),
    move: (event, grip) => onChange(how(grip.box, event.clientX - grip.x, event.clientY - grip.y)),
  });
  return { ...drag, ...byArrows((dx, dy) => onChange(how(box, dx, dy))) };
}

const moved = (box: Rect, dx: number, dy: number) => ({ ...box, x: box.x + dx, y: box.y + dy });
const resized = (box: Rect, dx: number, dy: number) => ({
  ...box,
  width: Math.max(LEAST, box.width + dx),
  height: Math.max(LEAST, box.height + dy),
});
const resizedRound = (box: Rect, dx: number, dy: number) => {
  const side = Math.max(LEAST, box.width + (dx + dy) / 2);
  return { ...box, width: side, height: side };
};

function SpotlightView({ focus, onChange, onPutAway }: ViewProps<Extract<Focus, { kind: 'spotlight' }>>) {
  const { box, dark } = focus;
  const to = (next: Rect) => onChange({ ...focus, box: next });
  const move = useBox(box, moved, to);
  const resize = useBox(box, resized, to);
  const [rx, ry] = [box.width / 2, box.height / 2];
  const hole = `M${box.x} ${box.y + ry}a${rx} ${ry} 0 1 0 ${box.width} 0a${rx} ${ry} 0 1 0 ${-box.width} 0Z`;
  return (
    <div className="pointer-events-none fixed inset-0">
      <svg className="absolute inset-0 size-full" data-testid="spotlight">
        <path
          d={`M-9999 -9999H99999V99999H-9999Z${hole}`}
          fillRule="evenodd"
          fill="#05100c"
          fillOpacity={dark}
        />
      </svg>
      <Grip
        label={say('moveSpotlight')}
        left={box.x + rx * 0.29}
        top={box.y + ry * 0.29}
        icon={<Move aria-hidden size={20} />}
        handlers={move}
      />
      <Grip
        label={say('resizeSpotlight')}
        left={box.x + rx * 1.71}
        top={box.y + ry * 1.71}
        icon={<Maximize2 aria-hidden size={20} className="rotate-90" />}
        handlers={resize}
      />
      <Below box={box}>
        <div className="w-40 px-2">
          <Slider
            label={say('darker')}
            value={Math.round(dark * 100)}
            min={20}
            max={100}
            step={5}
            unit=" %"
            onChange={(value) => onChange({ ...focus, dark: value / 100 })}
          />
        </div>
        <PutAway what={say('spotlight')} onClick={onPutAway} />
      </Below>
    </div>
  );
}

const SIDES = ['left', 'top', 'right', 'bottom'] as const;
const SIDE_NAMES = {
  left: say('fromLeft'),
  top: say('fromTop'),
  right: say('fromRight'),
  bottom: say('fromBottom'),
};
const SIDE_ICONS = {
  left: <ChevronRight aria-hidden />,
  top: <ChevronDown aria-hidden />,
  right: <ChevronLeft aria-hidden />,
  bottom: <ChevronUp aria-hidden />,
};

interface CoverProps {
  box: Rect;
  onChange(focus: Focus): void;
  onPutAway(): void;
}

/** A sheet over the window, drawn back from any of its sides. */
function CoverView({ box, onChange, onPutAway }: CoverProps) {
  return (
    <div className="pointer-events-none fixed inset-0">
      <div
        data-testid="cover"
        className="pointer-events-auto absolute touch-none rounded-sm shadow-xl"
        style={{
          left: box.x,
          top: box.y,
          width: box.width,
          height: box.height,
          background: 'repeating-linear-gradient(135deg, #23483b 0 26px, #264e40 26px 52px)',
        }}
      />
      {SIDES.map((side) => (
        <CoverSide
          key={side}
          side={side}
          box={box}
          onChange={(next) => onChange({ kind: 'cover', box: next })}
        />
      ))}
      <Below box={{ ...box, y: box.y, height: box.height / 2 }}>
        <PutAway what={say('cover')} onClick={onPutAway} />
      </Below>
    </div>
  );
}

function CoverSide({
  side,
  box,
  onChange,
}: {
  side: (typeof SIDES)[number];
  box: Rect;
  onChange(box: Rect): void;
}) {
  const drag = useBox(box, (from, dx, dy) => drawnBack(side, from, dx, dy), onChange);
  const [right, bottom] = [box.x + box.width, box.y + box.height];
  return (
    <Grip
      label={say('drawBack', { side: SIDE_NAMES[side] })}
      left={side === 'left' ? box.x : side === 'right' ? right : box.x + box.width / 2}
      top={side === 'top' ? box.y : side === 'bottom' ? bottom : box.y + box.height / 2}
      icon={SIDE_ICONS[side]}
      handlers={drag}
    />
  );
}

function drawnBack(side: (typeof SIDES)[number], box: Rect, dx: number, dy: number): Rect {
  const within = (value: number, most: number) => Math.min(most, Math.max(0, value));
  const [right, bottom] = [box.x + box.width, box.y + box.height];
  switch (side) {
    case 'left': {
      const x = within(box.x + dx, right - 2);
      return { ...box, x, width: right - x };
    }
    case 'top': {
      const y = within(box.y + dy, bottom - 2);
      return { ...box, y, height: bottom - y };
    }
    case 'right':
      return { ...box, width: Math.max(2, Math.min(innerWidth, right + dx) - box.x) };
    case 'bottom':
      return { ...box, height: Math.max(2, Math.min(innerHeight, bottom + dy) - box.y) };
  }
}

function Magnifier({
  tab,
  focus,
  onChange,
  onPutAway,
}: ViewProps<Extract<Focus, { kind: 'magnifier' }>> & { tab: Tab }) {
  const { box, zoom } = focus;
  const to = (next: Rect) => onChange({ ...focus, box: next });
  const move = useBox(box, moved, to);
  const resize = useBox(box, resizedRound, to);
  return (
    <div className="pointer-events-none fixed inset-0">
      <div
        data-testid="magnifier"
        {...move}
        className="pointer-events-auto absolute cursor-move touch-none overflow-hidden rounded-full border-4 border-board bg-white shadow-xl"
        style={{ left: box.x, top: box.y, width: box.width, height: box.height }}
      >
        <MagnifierView tab={tab} box={box} zoom={zoom} />
      </div>
      <Grip
        label={say('moveMagnifier')}
        left={box.x + box.width * 0.146}
        top={box.y + box.height * 0.146}
        icon={<Move aria-hidden size={20} />}
        handlers={move}
      />
      <Grip
        label={say('resize')}
        left={box.x + box.width * 0.854}
        top={box.y + box.height * 0.854}
        icon={<Maximize2 aria-hidden size={20} className="rotate-90" />}
        handlers={resize}
      />
      <Below box={box}>
        <div className="w-40 px-2">
          <Slider
            label={say('enlarges')}
            value={zoom}
            min={1.5}
            max={6}
            step={0.5}
            unit="×"
            onChange={(value) => onChange({ ...focus, zoom: value })}
          />
        </div>
        <PutAway what={say('magnifier')} onClick={onPutAway} />
      </Below>
    </div>
  );
}

/** What belongs to a thing over the page, under it, as far as the window goes. */
function Below({ box, children }: { box: Rect; children: ReactNode }) {
  const top = Math.min(box.y + box.height + 12, innerHeight - 76);
  const left = Math.min(Math.max(box.x + box.width / 2, 130), innerWidth - 130);
  return (
    <div
      className="pointer-events-auto absolute flex -translate-x-1/2 items-center rounded-2xl bg-board p-1 text-paper shadow-xl"
      style={{ left, top }}
    >
      {children}
    </div>
  );
}

function PutAway({ what, onClick }: { what: string; onClick(): void }) {
  return (
    <BoardButton label={say('putAway', { what })} icon={<X aria-hidden size={20} />} onClick={onClick} />
  );
}

/** How often the figures of a countdown are looked at, milliseconds. */
const TICK_MS = 200;

function CountdownView({ countdown, attention }: { countdown: Timer; attention: Attention }) {
  const now = useNow();
  const isUp = timerLeft(countdown, now) === 0;
  useEffect(() => {
    if (isUp) chime();
  }, [isUp]);
  const { startedAt } = countdown;
  const set = (part: Partial<Timer>) => attention.countdown.set({ ...countdown, ...part });
  const pause = () =>
    startedAt === null
      ? set({ startedAt: Date.now() })
      : set({ before: timerElapsed(countdown, Date.now()), startedAt: null });
  return (
    <div className="pointer-events-auto fixed end-1/2 top-4 flex translate-x-1/2 items-center gap-1 rounded-2xl bg-board p-2 text-paper shadow-xl">
      <span role="timer" className="min-w-28 px-2 text-center text-4xl font-bold tabular-nums">
        {isUp ? say('timeUp') : timerText(countdown, now)}
      </span>
      <BoardButton
        label={startedAt === null ? say('start') : say('pause')}
        icon={startedAt === null ? <Play aria-hidden size={20} /> : <Pause aria-hidden size={20} />}
        onClick={pause}
      />
      <BoardButton
        label={say('restart')}
        icon={<RotateCcw aria-hidden size={20} />}
        onClick={() => set({ before: 0, startedAt: Date.now() })}
      />
      <PutAway what={say('timer')} onClick={() => attention.countdown.set(undefined)} />
    </div>
  );
}

/** The time of this device, looked at several times a second. */
function useNow(): number {
  const [now, setNow] = useState(() => Date.now());
  useEffect(() => {
    const timer = setInterval(() => setNow(Date.now()), TICK_MS);
    return () => clearInterval(timer);
  }, []);
  return now;
}
