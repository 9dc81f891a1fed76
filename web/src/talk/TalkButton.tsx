import { MessageSquare } from 'lucide-react';
import type { Room } from '../room/room';
import { useStore } from '../store/useStore';
import { Button } from '../ui/Button';
import { classes } from '../ui/classes';
import { t } from '../words';

/** Opens and closes what the class says and notes down; says how much is new. `brief`: where a low window has no room for it. */
export function TalkButton({ room, brief = false }: { room: Room; brief?: boolean }) {
  const chat = room.chat!;
  const unread = useStore(chat.unread);
  const isOpen = useStore(chat.open);
  const label = unread > 0 ? t('talk.talkWithNew', { count: unread }) : t('talk.talk');
  return (
    <Button
      look="onBoard"
      aria-label={label}
      title={label}
      aria-pressed={isOpen}
      data-closes
      className={classes(brief && '!px-2.5', brief && unread === 0 && '[@media(max-height:420px)]:hidden')}
      icon={<MessageSquare aria-hidden size={18} />}
      onClick={() => chat.open.set(!isOpen)}
    >
      {!brief && <span className="hidden compact:inline">{t('talk.talk')}</span>}
      {unread > 0 && unread}
    </Button>
  );
}
