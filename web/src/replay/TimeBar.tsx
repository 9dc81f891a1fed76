import type { KeyboardEvent } from 'react';
import { useEffect, useRef } from 'react';
import { useStore } from '../store/useStore';
import { t } from '../words';
import type { Player } from './player';
import { playTime } from './playTime';

/** Size of the band on which it is seen who did something when, device pixels. */
const BAND = { width: 1600, height: 20 };
const TEACHER_COLOUR = '#fffdf5';

interface TimeBarProps {
  player: Player;
  /** The colour of somebody who wrote; undefined for the teacher. */
  colourOf(author: string): string | undefined;
  /** Where one is, in words. */
  status: string;
}

/** The time of a playback: who did something when, the turns to other pages, and where one is. */
export function TimeBar({ player, colourOf, status }: TimeBarProps) {
  const { time } = useStore(player.state);
  const marked = useStore(player.marked);
  const { replay } = player;
  const share = (at: number) => `${(100 * at) / Math.max(1, replay.length)}%`;
  // Keys go from step to step; a slider's own would move by a thousandth of a second.
  const keepKeys = (event: KeyboardEvent) => {
    if (event.key === 'Home') player.seek(0);
    else if (event.key === 'End') player.seek(replay.length);
    else return;
    event.preventDefault();
  };
  return (
    <div className="relative">
      <Band player={player} colourOf={colourOf} />
      {marked && (
        <div aria-hidden className="pointer-events-none absolute inset-x-2 top-0 h-2.5">
          <div
            data-testid="marked"
            className="absolute h-full bg-chalk/60"
            style={{ insetInlineStart: share(marked.from), width: share(marked.to - marked.from) }}
          />
        </div>
      )}
      <input
        type="range"
        aria-label={t('replay.time')}
        aria-valuetext={status}
        min={0}
        max={Math.max(1, Math.round(replay.length))}
        value={Math.round(time)}
        onChange={(event) => player.seek(Number(event.target.value))}
        onKeyDown={keepKeys}
        className="block h-8 w-full accent-chalk"
      />
    </div>
  );
}

function Band({ player, colourOf }: Pick<TimeBarProps, 'player' | 'colourOf'>) {
  const canvas = useRef<HTMLCanvasElement>(null);
  useEffect(() => {
    const { replay } = player;
    const ctx = canvas.current!.getContext('2d')!;
    const place = (time: number) => (time / Math.max(1, replay.length)) * (BAND.width - 4);
    ctx.clearRect(0, 0, BAND.width, BAND.height);
    for (const [i, { author }] of replay.steps.entries()) {
      const { from, to } = replay.spanOf(i);
      ctx.fillStyle = colourOf(author) ?? TEACHER_COLOUR;
      ctx.fillRect(place(from), 6, Math.max(4, place(to) - place(from)), BAND.height - 6);
    }
    ctx.fillStyle = '#f2d94e';
    for (const turn of replay.turnTimes().slice(1)) ctx.fillRect(place(turn), 0, 4, BAND.height);
  }, [player, colourOf]);
  return (
    <canvas
      ref={canvas}
      aria-hidden
      {...BAND}
      title={playTime(player.replay.length)}
      className="mx-2 h-2.5 w-[calc(100%-1rem)] rounded bg-board-light"
    />
  );
}
