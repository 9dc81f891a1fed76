import { useStore } from '@web/store/useStore';
import { BookDashed, Focus as FocusIcon, Sun, Timer } from 'lucide-react';
import type { ReactNode } from 'react';
import { t } from '@web/words';
import { say } from '../../words';
import { TAB_TOOLS } from '../tools';
import type { Tab } from '../tab';
import type { Attention, Focus } from './attention';
import { BoardButton } from './BoardButton';

const MINUTES = [1, 3, 5, 10];

/** What leads the eye, and time. */
export function FocusSheet({
  tab: { desk },
  attention,
  onDone,
}: {
  tab: Tab;
  attention: Attention;
  onDone(): void;
}) {
  const focus = useStore(attention.focus);
  const mode = useStore(desk.mode);
  const { tool } = useStore(desk.penCase);
  const things: readonly { kind: Focus['kind']; label: string; icon: ReactNode }[] = [
    { kind: 'spotlight', label: say('spotlight'), icon: <Sun aria-hidden /> },
    { kind: 'cover', label: say('cover'), icon: <BookDashed aria-hidden /> },
    { kind: 'magnifier', label: say('magnifier'), icon: <FocusIcon aria-hidden /> },
  ];
  const begin = (minutes: number) => {
    attention.countDown(minutes * 60_000);
    onDone();
  };
  return (
    <>
      <div className="grid grid-cols-3 gap-1">
        {things.map(({ kind, ...rest }) => (
          <BoardButton
            key={kind}
            {...rest}
            caption={rest.label}
            active={focus?.kind === kind}
            onClick={() => attention.toggle(kind)}
          />
        ))}
      </div>
      <BoardButton
        label={t('tools.patchOverAnAnswer')}
        caption={t('tools.patch')}
        icon={TAB_TOOLS.patch.icon}
        active={tool === 'patch' && mode === 'write'}
        onClick={() => desk.takeTool('patch')}
      />
      <h2 className="flex items-center gap-2 text-sm">
        <Timer aria-hidden size={18} />
        {say('timer')}
      </h2>
      <div className="grid grid-cols-4 gap-1">
        {MINUTES.map((minutes) => (
          <button
            key={minutes}
            type="button"
            className="min-h-11 rounded-xl bg-board-light text-sm hover:bg-board-hover"
            onClick={() => begin(minutes)}
          >
            {say('minutes', { count: minutes })}
          </button>
        ))}
      </div>
    </>
  );
}
