import { FilePlus, History } from 'lucide-react';
import { useState } from 'react';
import type { PageDesk } from '../room/pageDesk';
import { useStore } from '../store/useStore';
import { Button } from '../ui/Button';
import { t } from '../words';
import { timeOfDay } from '../words/dates';
import { bringBack } from './bringBack';
import type { PlayedPage } from './playedPage';
import type { Player } from './player';
import type { Wanted } from './useReplay';

interface MomentActionsProps {
  desk: PageDesk;
  player: Player;
  played: PlayedPage;
  wanted: Wanted;
  onClose(): void;
}

/** What a teacher makes of a moment: a page of its own, or the page as it is now. */
export function MomentActions({ desk, player, played, wanted, onClose }: MomentActionsProps) {
  const { time } = useStore(player.state);
  const [busy, setBusy] = useState(false);
  const { replay } = player;
  const { room } = desk;
  const moment = replay.at(time);
  const page = moment && desk.pages.get().find(({ id }) => id === moment.page);
  if (!moment || !page) return null;
  const number = desk.pages.get().indexOf(page) + 1;
  const isLast = time >= replay.length;

  const isWritable = () => {
    player.pause();
    if (desk.mayWrite) return true;
    desk.tellProblem(t('server.ended-history'));
    return false;
  };
  const makePage = () => {
    if (!isWritable()) return;
    const title = t('replay.pageAt', { number, time: timeOfDay(replay.realTime(time)) });
    desk.pageActions.keepMoment(page.id, played.pageOf(moment)!, title, played.marksAt(moment));
    onClose();
  };
  const restore = async () => {
    if (!isWritable()) return;
    setBusy(true);
    const seq = replay.seqOf(moment);
    try {
      const space = room.spaces.shownOn(page.id);
      await bringBack(room, { page: page.id, number, space, seq, at: replay.realTime(time) });
      onClose();
    } catch (failed) {
      desk.tellProblem((failed as Error).message);
      setBusy(false);
    }
  };
  return (
    <div className="flex flex-wrap gap-2">
      <Button look="onBoard" icon={<FilePlus aria-hidden size={18} />} onClick={makePage}>
        {t('replay.makePage')}
      </Button>
      {wanted.author === undefined && (
        <Button
          look="onBoard"
          icon={<History aria-hidden size={18} />}
          disabled={busy || isLast}
          onClick={() => void restore()}
        >
          {t('replay.bringBack')}
        </Button>
      )}
    </div>
  );
}
