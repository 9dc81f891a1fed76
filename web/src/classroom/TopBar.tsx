import { ArrowLeft } from 'lucide-react';
import type { ReactNode } from 'react';
import { Link } from 'react-router';
import type { Arrangement } from '../canvas/view';
import { useStore } from '../store/useStore';
import { classes } from '../ui/classes';
import { windowRoom } from '../ui/windowRoom';
import { FoldedBar } from './FoldedBar';
import { isRightToLeft, t } from '../words';

interface TopBarProps {
  back: string;
  backLabel: string;
  title: string;
  /** What the teacher is doing here; a class that is going on stands out. */
  doing?: keyof typeof DOING | undefined;
  /** A sign beside that. */
  sign?: ReactNode;
  arrangement: Arrangement;
  /** Where there is room for a column. */
  side: 'left' | 'right';
  children?: ReactNode;
}

const DOING = {
  preparing: t('classroom.preparing'),
  inClass: t('classroom.inClass'),
  ended: t('classroom.classEnded'),
};

const HOLDER = 'rounded-2xl bg-board forced-colors:border-2 p-0.5 text-paper shadow-xl';

/** Two small holders in the upper corners: where one is, and what goes for the class. */
export function TopBar({ back, backLabel, title, doing, sign, arrangement, side, children }: TopBarProps) {
  const columns = arrangement === 'columns';
  const { compact } = useStore(windowRoom);
  return (
    <div
      className={classes(
        'pointer-events-none absolute inset-x-2 top-2 z-30 flex items-start justify-between gap-2 *:pointer-events-auto compact:inset-x-1 compact:top-1',
        (side === 'left') !== isRightToLeft() && 'flex-row-reverse',
      )}
    >
      <div
        data-bar="lesson"
        className={classes(
          'flex items-center pe-3',
          HOLDER,
          columns ? 'max-w-44' : compact ? 'min-w-0' : 'max-w-[26vw]',
        )}
      >
        <Link
          to={back}
          aria-label={backLabel}
          className="grid size-11 shrink-0 place-items-center rounded-xl hover:bg-board-light"
        >
          <ArrowLeft aria-hidden />
        </Link>
        <div className="min-w-0">
          {doing && (
            <div className={classes('flex items-center gap-2', columns && '[&_[data-saved]>span]:sr-only')}>
              <p
                className={classes(
                  'w-fit rounded-full px-2 whitespace-nowrap text-sm compact:leading-4 leading-5 font-bold',
                  doing === 'inClass' ? 'bg-chalk text-board' : 'border border-paper/60',
                )}
              >
                {DOING[doing]}
              </p>
              {sign}
            </div>
          )}
          <h1
            title={title}
            className={classes('font-bold leading-tight', columns && !doing ? 'line-clamp-2' : 'truncate')}
          >
            {title}
          </h1>
        </div>
      </div>
      {children && compact && (
        <FoldedBar label={doing === 'preparing' ? t('classroom.lesson') : t('common.class')}>
          {children}
        </FoldedBar>
      )}
      {children && !compact && (
        <div
          data-bar="class"
          className={classes(
            'flex gap-1 [&_button]:px-3',
            HOLDER,
            columns ? 'w-44 flex-col' : 'flex-wrap justify-end',
          )}
        >
          {children}
        </div>
      )}
    </div>
  );
}
