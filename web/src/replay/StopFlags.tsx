import type { PackedStop } from '@doodla/core/explain';
import { Flag } from 'lucide-react';
import { t } from '../words';
import type { Player } from './player';
import { playTime } from './playTime';

interface StopFlagsProps<Stop extends PackedStop> {
  player: Player;
  stops: readonly Stop[];
  onChoose?(stop: Stop): void;
}

/** Where the playback waits, over the time; each leads there. */
export function StopFlags<Stop extends PackedStop>({ player, stops, onChoose }: StopFlagsProps<Stop>) {
  if (stops.length === 0) return null;
  const { length } = player.replay;
  return (
    <ul aria-label={t('replay.stops')} className="relative mx-2 h-11">
      {stops.map((stop) => (
        <li
          key={stop.id}
          className="absolute -translate-x-1/2 rtl:translate-x-1/2"
          style={{
            insetInlineStart: `clamp(1.375rem, ${(stop.time / Math.max(1, length)) * 100}%, calc(100% - 1.375rem))`,
          }}
        >
          <button
            type="button"
            aria-label={t('replay.stopAt', { time: playTime(stop.time), text: stop.text })}
            onClick={() => {
              player.pause();
              player.seek(stop.time);
              onChoose?.(stop);
            }}
            className="grid size-11 place-items-center rounded-xl text-chalk hover:bg-board-light"
          >
            <Flag aria-hidden size={20} />
          </button>
        </li>
      ))}
    </ul>
  );
}
