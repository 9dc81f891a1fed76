import { CircleHelp, Hand, ThumbsUp } from 'lucide-react';
import type { Room } from '../room/room';
import { useStore } from '../store/useStore';
import { classes } from '../ui/classes';
import { t } from '../words';

const BUTTON = 'grid size-11 place-items-center rounded-xl hover:bg-board-hover';

interface HandButtonsProps {
  room: Room;
  /** Whether there is little room on small screens: there only a hand that is up is shown. */
  brief?: boolean;
}

/** A student's hand, and what can be said without words. */
export function HandButtons({ room, brief = false }: HandButtonsProps) {
  const state = useStore(room.classroom!.state);
  const me = room.target.actor?.id;
  const place = state && me !== undefined ? state.hands.indexOf(me) : -1;
  const up = place >= 0;
  const label = up ? t('asking.yourHandIsUp', { place: place + 1 }) : t('asking.putYourHandUp');
  return (
    <span className={classes('flex items-center gap-1', brief && !up && 'compact:hidden')}>
      <button
        type="button"
        aria-pressed={up}
        aria-label={label}
        title={label}
        onClick={() => void room.asking!.hand(!up)}
        className={classes(BUTTON, up && 'bg-paper text-board hover:bg-paper')}
      >
        <Hand aria-hidden size={20} />
      </button>
      {(
        [
          ['clear', t('asking.thatIsClear'), ThumbsUp],
          ['lost', t('asking.iAmLost'), CircleHelp],
        ] as const
      ).map(([which, name, Icon]) => (
        <button
          key={which}
          type="button"
          aria-label={name}
          title={name}
          onClick={() =>
            void room
              .asking!.react(which)
              .then((sent) => sent && room.tellNotice(t('asking.isTold', { name })))
          }
          className={classes(BUTTON, brief && 'compact:hidden')}
        >
          <Icon aria-hidden size={20} />
        </button>
      ))}
    </span>
  );
}
