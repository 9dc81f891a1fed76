import type { Cue } from '@doodla/core/explain';
import { useStore } from '../store/useStore';
import type { Player } from './player';

/** What is said now, to be read. */
export function CaptionLine({ player, cues }: { player: Player; cues: readonly Cue[] }) {
  const { time } = useStore(player.state);
  if (cues.length === 0) return null;
  const said = cues.filter(({ from, to }) => time >= from && time < to);
  return (
    <p
      data-testid="caption"
      className="min-h-9 self-center rounded-lg bg-black px-4 py-1 text-center text-xl whitespace-pre-line text-white empty:invisible"
    >
      {said.map(({ text }) => text).join('\n')}
    </p>
  );
}
