import type { PackedStop } from '@doodla/core/explain';
import { Play } from 'lucide-react';
import { useEffect, useState } from 'react';
import { useStore } from '../store/useStore';
import { Button } from '../ui/Button';
import { t } from '../words';
import type { Player } from './player';
import { playTime } from './playTime';

/** While it waits: what is to be done, how much time there is for it, and going on. */
export function HeldSign({ player, stops }: { player: Player; stops: readonly PackedStop[] }) {
  const heldAt = useStore(player.heldAt);
  const stop = stops.find(({ time }) => time === heldAt);
  if (!stop) return null;
  return (
    <div className="flex flex-wrap items-center justify-center gap-x-6 gap-y-2 rounded-2xl bg-paper px-5 py-3 text-ink">
      <p role="status" className="text-2xl font-bold compact:text-lg">
        {stop.text || t('replay.waits')}
      </p>
      {stop.seconds !== null && <Countdown key={stop.id} seconds={stop.seconds} />}
      <Button look="main" icon={<Play aria-hidden size={18} />} onClick={() => player.play()}>
        {t('replay.goOn')}
      </Button>
    </div>
  );
}

/** The time that is left; at its end it stays at nothing, and whoever watches goes on when they are ready. */
function Countdown({ seconds }: { seconds: number }) {
  const [end] = useState(() => Date.now() + seconds * 1000);
  const [left, setLeft] = useState(seconds);
  useEffect(() => {
    const timer = setInterval(() => setLeft(Math.max(0, Math.ceil((end - Date.now()) / 1000))), 250);
    return () => clearInterval(timer);
  }, [end]);
  return (
    <p role="timer" className={`text-2xl font-bold tabular-nums ${left === 0 ? 'text-alarm' : ''}`}>
      {playTime(left * 1000)}
    </p>
  );
}
