import { useStore } from '../store/useStore';
import { classes } from '../ui/classes';
import type { PageDesk } from '../room/pageDesk';
import { isSamePen } from '../desk/penCase';
import { PenDot } from './ReadyPens';
import { t } from '../words';
import { NATURE_NAMES } from '../tools/pen/natures';

/** The pen of a second person at the display: whoever writes on this half of it uses this one. */
export default function OtherHand({ desk, side }: { desk: PageDesk; side: 'left' | 'right' }) {
  const { ready, otherHand } = useStore(desk.penCase);
  useStore(desk.room.mode);
  if (!otherHand || !desk.mayWrite) return null;
  return (
    <div
      role="toolbar"
      aria-label={t('reach.pensOfThisHalf')}
      aria-orientation="vertical"
      className={classes(
        'absolute top-1/2 z-20 flex w-14 -translate-y-1/2 flex-col gap-1 rounded-2xl bg-board forced-colors:border-2 p-1 shadow-xl',
        side === 'left' ? 'left-2' : 'right-2',
      )}
    >
      {ready.map((pen, i) => (
        <button
          key={i}
          type="button"
          aria-pressed={isSamePen(pen, otherHand)}
          aria-label={t('reach.penForThisHalf', { number: i + 1, nature: NATURE_NAMES[pen.nature] })}
          onClick={() => desk.penCase.patch({ otherHand: pen })}
          className={classes(
            'grid h-11 place-items-center rounded-xl border-2 bg-paper',
            isSamePen(pen, otherHand) ? 'border-chalk ring-2 ring-chalk' : 'border-board-line',
          )}
        >
          <PenDot pen={pen} />
        </button>
      ))}
    </div>
  );
}
