import { Button } from '../ui/Button';
import { t } from '../words';
import { HeldSign } from './HeldSign';
import type { Player } from './player';
import { StopEditor } from './StopEditor';
import type { PlayedStop, Stops } from './useStops';

interface StopAreaProps {
  player: Player;
  stops: Stops;
  /** The stop that its teacher changes. */
  edited: PlayedStop | undefined;
  onEdited(): void;
}

/** What is to be said of stops: the one that is changed, the one just taken away, or the one at which it waits. */
export function StopArea({ player, stops, edited, onEdited }: StopAreaProps) {
  if (edited)
    return (
      <StopEditor
        key={edited.id}
        stop={edited}
        onKeep={(stop) => {
          stops.change(stop);
          onEdited();
        }}
        onLeave={onEdited}
        onRemove={stops.remove}
      />
    );
  const { gone } = stops;
  if (gone)
    return (
      <p
        role="status"
        className="flex items-center justify-center gap-4 rounded-2xl bg-paper px-4 py-2 text-ink"
      >
        {t('replay.stopGone')}
        <Button onClick={() => stops.putBack(gone)}>{t('common.undo')}</Button>
      </p>
    );
  return <HeldSign player={player} stops={stops.played} />;
}
