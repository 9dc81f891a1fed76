import { Hand, NotebookPen } from 'lucide-react';
import type { ReactNode } from 'react';
import { useStore } from '../store/useStore';
import { IconButton } from '../ui/IconButton';
import type { PageDesk } from '../room/pageDesk';
import type { OpensTo } from './reachState';
import { t } from '../words';

/** Whether the pointer uses the page or writes on it. */
export function ModeSwitch({ desk, side }: { desk: PageDesk; side: OpensTo }) {
  const mode = useStore(desk.room.mode);
  useStore(desk.room.rules);
  const mayWrite = desk.mayWrite || desk.room.mayPoint;
  const entries: { mode: 'use' | 'write'; label: string; caption: string; icon: ReactNode }[] = [
    {
      mode: 'use',
      label: t('reach.useThePageScrollAnd'),
      caption: t('reach.use'),
      icon: <Hand aria-hidden />,
    },
    {
      mode: 'write',
      label: t('reach.writeOnThePage'),
      caption: t('reach.write'),
      icon: <NotebookPen aria-hidden />,
    },
  ];
  return (
    <div
      role="group"
      aria-label={t('reach.useOrWrite')}
      className="grid grid-cols-2 gap-1 rounded-xl bg-board-light p-1"
    >
      {entries.map((entry) => (
        <IconButton
          key={entry.mode}
          label={entry.label}
          caption={entry.caption}
          icon={entry.icon}
          shortcut={desk.room.shortcuts.keyOf('toggleMode')}
          active={(mode === 'write' && mayWrite) === (entry.mode === 'write')}
          disabled={entry.mode === 'write' && !mayWrite}
          tooltipSide={side}
          className="min-h-12"
          onClick={() => desk.setMode(entry.mode)}
        />
      ))}
    </div>
  );
}
