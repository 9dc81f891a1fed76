import { X } from 'lucide-react';
import { Tabs } from 'radix-ui';
import { lazy, Suspense, useEffect, useState } from 'react';
import type { Room } from '../room/room';
import type { Stage } from '../stage/stage';
import { useStore } from '../store/useStore';
import { classes } from '../ui/classes';
import { Switch } from '../ui/Switch';
import { windowRoom } from '../ui/windowRoom';
import { t } from '../words';
import { ChatPart } from './ChatPart';

const NotesPart = lazy(() => import('./NotesPart'));

const TAB =
  'min-h-11 grow rounded-xl px-3 font-bold data-[state=active]:bg-board data-[state=active]:text-paper';

interface TalkPanelProps {
  room: Room;
  stage: Stage;
  side: 'left' | 'right';
}

/** What the class says to each other and notes down, beside the page. */
export default function TalkPanel({ room, stage, side }: TalkPanelProps) {
  const columns = useStore(stage.arrangement) === 'columns' && room.isTeacher;
  const chat = room.chat!;
  const isOpen = useStore(chat.open);
  const { compact } = useStore(windowRoom);
  const [tab, setTab] = useState('chat');
  useEffect(() => {
    if (isOpen) void chat.refresh();
  }, [chat, isOpen]);
  if (!isOpen) return null;
  return (
    <section
      aria-label={t('talk.talk')}
      data-bar={compact ? undefined : 'talk'}
      data-side={side}
      onKeyDown={(event) => {
        if (event.key === 'Escape') chat.open.set(false);
      }}
      className={classes(
        'absolute top-18 bottom-17 z-20 compact:z-30 flex w-92 max-w-[calc(100vw-1rem)] flex-col rounded-2xl bg-paper shadow-xl forced-colors:border-2 compact:inset-x-2 compact:top-15 compact:bottom-28 compact:w-auto',
        side === 'left' ? (columns ? 'left-48' : 'left-2') : columns ? 'right-48' : 'right-2',
      )}
    >
      <Tabs.Root value={tab} onValueChange={setTab} className="flex min-h-0 grow flex-col">
        <div className="flex items-center gap-1 p-2">
          <Tabs.List aria-label={t('talk.talk')} className="flex grow gap-1">
            <Tabs.Trigger value="chat" className={TAB}>
              {t('talk.chat')}
            </Tabs.Trigger>
            <Tabs.Trigger value="notes" className={TAB}>
              {t('talk.notes')}
            </Tabs.Trigger>
          </Tabs.List>
          <button
            type="button"
            aria-label={t('common.close')}
            onClick={() => chat.open.set(false)}
            className="grid size-11 shrink-0 place-items-center rounded-xl hover:bg-paper-dim"
          >
            <X aria-hidden />
          </button>
        </div>
        <Tabs.Content value="chat" className="flex min-h-0 grow flex-col data-[state=inactive]:hidden">
          {room.isTeacher && <ChatSwitch room={room} />}
          <ChatPart room={room} />
        </Tabs.Content>
        <Tabs.Content value="notes" className="flex min-h-0 grow flex-col data-[state=inactive]:hidden">
          <Suspense>
            <NotesPart room={room} />
          </Suspense>
        </Tabs.Content>
      </Tabs.Root>
    </section>
  );
}

function ChatSwitch({ room }: { room: Room }) {
  const { chat } = useStore(room.rules);
  return (
    <div className="px-3">
      <Switch
        label={t('talk.studentsMayWrite')}
        checked={chat}
        onChange={(on) => room.classroom!.setRules({ chat: on })}
      />
    </div>
  );
}
