import type { Timer } from '@doodla/core';
import { timerElapsed, timerLeft, timerText } from '@doodla/core';
import { Bell, BellOff, Maximize2, Minimize2, Pause, Play, Plus, X } from 'lucide-react';
import { useEffect, useReducer, useState } from 'react';
import { useStore } from '../store/useStore';
import { classes } from '../ui/classes';
import { IconButton } from '../ui/IconButton';
import type { Room } from '../room/room';
import { chime } from './chime';
import { DragStrip } from '../ui/DragStrip';
import { t } from '../words';

const TICK_MS = 200;
/** A countdown in its last seconds is shown in another colour. */
const SOON_MS = 10_000;

/** The class's countdown or stopwatch; each person puts it where it is not in their way. */
export default function TimerPanel({ room }: { room: Room }) {
  const classroom = room.classroom!;
  const { timer } = useStore(classroom.scene);
  const [place, setPlace] = useState<{ x: number; y: number }>();
  useTicks();
  useChime(timer, classroom);
  if (!timer) return null;
  const now = classroom.now;
  const left = timerLeft(timer, now);
  const over = left === 0;
  const leads = room.isTeacher && room.mayWrite;
  const set = (changed: Timer | null) => classroom.setScene({ timer: changed });
  return (
    <div
      role="group"
      aria-label={timer.kind === 'countdown' ? t('focus.countdown') : t('common.stopwatch')}
      style={
        place ? { left: place.x, top: place.y } : { left: '50%', top: 66, transform: 'translateX(-50%)' }
      }
      className={classes(
        'absolute z-30 flex flex-col items-center rounded-2xl border-2 px-2 pb-1 shadow-xl',
        over || (left !== undefined && left <= SOON_MS)
          ? 'border-white bg-alarm text-white'
          : 'border-board-line bg-board text-paper',
      )}
    >
      <DragStrip label={t('focus.moveTheTime')} hint={t('focus.dragToMoveTheTime')} onPlace={setPlace} />
      <div className="flex items-center gap-1">
        <span
          role="timer"
          aria-label={timer.kind === 'countdown' ? t('focus.timeLeft') : t('focus.timeGone')}
          className={classes('px-2 font-bold tabular-nums', timer.large ? 'text-8xl' : 'text-4xl')}
        >
          {timerText(timer, now)}
        </span>
        {leads && <Controls timer={timer} now={now} over={over} set={set} />}
      </div>
      {over && (
        <span role="status" className="pb-1 font-bold">
          {t('focus.timeIsUp')}
        </span>
      )}
    </div>
  );
}

interface ControlsProps {
  timer: Timer;
  now: number;
  over: boolean;
  set(timer: Timer | null): void;
}

function Controls({ timer, now, over, set }: ControlsProps) {
  const running = timer.startedAt !== null && !over;
  const button = '!text-current hover:!bg-black/10';
  return (
    <>
      <IconButton
        className={button}
        label={running ? t('focus.holdTheTime') : t('focus.letTheTimeRun')}
        icon={running ? <Pause aria-hidden size={20} /> : <Play aria-hidden size={20} />}
        onClick={() =>
          set(
            running
              ? { ...timer, before: timerElapsed(timer, now), startedAt: null }
              : { ...timer, before: over ? 0 : timer.before, startedAt: now },
          )
        }
      />
      {timer.kind === 'countdown' && (
        <>
          <IconButton
            className={button}
            label={t('focus.oneMinuteMore')}
            icon={<Plus aria-hidden size={20} />}
            onClick={() =>
              set(
                over
                  ? { ...timer, length: 60_000, before: 0, startedAt: now }
                  : { ...timer, length: timer.length + 60_000 },
              )
            }
          />
          <IconButton
            className={button}
            label={timer.sound ? t('focus.soundAtTheEnd') : t('focus.noSoundAtTheEnd')}
            icon={timer.sound ? <Bell aria-hidden size={20} /> : <BellOff aria-hidden size={20} />}
            onClick={() => set({ ...timer, sound: !timer.sound })}
          />
        </>
      )}
      <IconButton
        className={button}
        label={timer.large ? t('focus.small') : t('common.large')}
        icon={timer.large ? <Minimize2 aria-hidden size={20} /> : <Maximize2 aria-hidden size={20} />}
        onClick={() => set({ ...timer, large: !timer.large })}
      />
      <IconButton
        className={button}
        label={t('focus.takeTheTimeAway')}
        icon={<X aria-hidden size={20} />}
        onClick={() => set(null)}
      />
    </>
  );
}

function useTicks(): void {
  const [, tick] = useReducer((count: number) => count + 1, 0);
  useEffect(() => {
    const timer = setInterval(tick, TICK_MS);
    return () => clearInterval(timer);
  }, []);
}

/** Rings when a countdown comes to its end while it is looked at. */
function useChime(timer: Timer | null, classroom: { readonly now: number }): void {
  useEffect(() => {
    if (!timer || timer.startedAt === null || !timer.sound) return;
    const left = timerLeft(timer, classroom.now);
    if (left === undefined || left === 0) return;
    const ring = setTimeout(chime, left);
    return () => clearTimeout(ring);
  }, [timer, classroom]);
}
