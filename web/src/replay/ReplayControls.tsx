import { Pause, Play, StepBack, StepForward } from 'lucide-react';
import { useStore } from '../store/useStore';
import { IconButton } from '../ui/IconButton';
import { t } from '../words';
import type { Player, Speed } from './player';
import { SPEEDS } from './player';

const SPEED_NAMES: Readonly<Record<Speed, string>> = {
  0.5: '½ ×',
  0.75: '¾ ×',
  1: '1 ×',
  1.25: '1¼ ×',
  1.5: '1½ ×',
  2: '2 ×',
  4: '4 ×',
  8: '8 ×',
  16: '16 ×',
};

/** Play, pause, one step on or back, and how fast. */
export function ReplayControls({ player }: { player: Player }) {
  const { time, isPlaying } = useStore(player.state);
  const speed = useStore(player.speed);
  const { replay } = player;
  return (
    <div className="flex items-center gap-1">
      <IconButton
        label={t('replay.stepBack')}
        shortcut="←"
        icon={<StepBack aria-hidden size={24} className="rtl:-scale-x-100" />}
        disabled={time <= 0}
        onClick={() => player.previous()}
      />
      <button
        type="button"
        aria-label={isPlaying ? t('replay.pause') : t('replay.play')}
        disabled={replay.length === 0}
        onClick={() => player.toggle()}
        className="grid size-14 place-items-center rounded-full bg-chalk text-board hover:brightness-110 disabled:opacity-40 compact:size-11"
      >
        {isPlaying ? (
          <Pause aria-hidden size={28} />
        ) : (
          <Play aria-hidden size={28} className="rtl:-scale-x-100" />
        )}
      </button>
      <IconButton
        label={t('replay.stepOn')}
        shortcut="→"
        icon={<StepForward aria-hidden size={24} className="rtl:-scale-x-100" />}
        disabled={time >= replay.length}
        onClick={() => player.next()}
      />
      <label className="ms-2 flex items-center gap-2">
        <span className="sr-only">{t('replay.speed')}</span>
        <select
          value={speed}
          onChange={({ target }) => player.speed.set(SPEEDS[target.selectedIndex]!)}
          className="min-h-11 rounded-xl border-2 border-board-line bg-board-light px-2 text-paper"
        >
          {SPEEDS.map((each) => (
            <option key={each} value={each}>
              {SPEED_NAMES[each]}
            </option>
          ))}
        </select>
      </label>
    </div>
  );
}
