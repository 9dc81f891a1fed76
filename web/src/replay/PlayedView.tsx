import type { Turn } from '@doodla/core/replay';
import { FlagTriangleRight, StretchHorizontal } from 'lucide-react';
import type { ReactNode } from 'react';
import { useCallback, useEffect, useMemo, useState } from 'react';
import type { PageDesk } from '../room/pageDesk';
import { useStore } from '../store/useStore';
import { Button } from '../ui/Button';
import { IconButton } from '../ui/IconButton';
import { t } from '../words';
import { timeOfDay } from '../words/dates';
import { Chapters } from './Chapters';
import { MomentActions } from './MomentActions';
import { PlayedPage } from './playedPage';
import type { Player } from './player';
import { playTime } from './playTime';
import { ReplayControls } from './ReplayControls';
import { ReplayHead } from './ReplayHead';
import type { Beside } from './ReplayStage';
import { ReplayStage } from './ReplayStage';
import { sceneryOf } from './scenery';
import { StopArea } from './StopArea';
import { StopFlags } from './StopFlags';
import { Thumbnails } from './Thumbnails';
import { TimeBar } from './TimeBar';
import type { Wanted } from './useReplay';
import { usePlayKeys } from './usePlayKeys';
import type { Stops } from './useStops';

interface PlayedViewProps {
  desk: PageDesk;
  /** What is played. */
  title: string;
  player: Player;
  stops: Stops;
  wanted: Wanted;
  /** What was shown beside the pages, where that is known. */
  beside?: Beside;
  /** What can be chosen of it. */
  choices: ReactNode;
  /** Keeps what a chapter is called; not given where one may not. */
  onNameChapter: ((turn: Turn, name: string) => Promise<void>) | undefined;
  onClose(): void;
  /** What is done with it, over its time. */
  children?: ReactNode;
}

/** Something that plays: its pages, its time, and all that it is played by. */
export function PlayedView(props: PlayedViewProps) {
  const { desk, title, player, stops, wanted, beside, choices, onNameChapter, onClose, children } = props;
  const { room } = desk;
  const { played, staleness } = usePlayedPage(desk, player);
  const [edited, setEdited] = useState<string>();
  const stop = desk.isTeacher ? stops.played.find(({ id }) => id === edited) : undefined;
  const [wide, setWide] = useState(false);
  const { time } = useStore(player.state);
  const status = statusOf(player, time, desk);
  const putStop = async () => {
    player.pause();
    setEdited(await stops.add(time));
  };
  usePlayKeys(player);
  const colourOf = useCallback((author: string) => room.personOf(author)?.colour, [room]);
  return (
    <div className="flex flex-[1_0_auto] flex-col gap-2">
      <ReplayHead title={title}>
        {choices}
        <IconButton
          label={t('replay.pageWidth')}
          icon={<StretchHorizontal aria-hidden size={22} />}
          active={wide}
          tooltipSide="none"
          onClick={() => setWide(!wide)}
        />
      </ReplayHead>
      {player.replay.length === 0 && <p role="status">{t('replay.nothing')}</p>}
      <ReplayStage
        player={player}
        played={played}
        staleness={staleness}
        wide={wide}
        beside={beside}
        onProblem={desk.tellProblem}
      />
      {children}
      <StopArea player={player} stops={stops} edited={stop} onEdited={() => setEdited(undefined)} />
      <Thumbnails player={player} played={played} />
      <StopFlags player={player} stops={stops.played} onChoose={({ id }) => setEdited(id)} />
      <TimeBar player={player} colourOf={colourOf} status={status} />
      <div className="flex flex-wrap items-center justify-between gap-x-4 gap-y-1">
        <ReplayControls player={player} />
        {wanted.page === undefined && <Chapters desk={desk} player={player} onName={onNameChapter} />}
        <p className="min-w-0 grow truncate" data-testid="replay-status">
          {status}
        </p>
        {desk.isTeacher && (
          <Button
            look="onBoard"
            icon={<FlagTriangleRight aria-hidden size={18} />}
            disabled={player.replay.length === 0}
            onClick={() => void putStop()}
          >
            {t('replay.putStop')}
          </Button>
        )}
        {desk.isTeacher && (
          <MomentActions desk={desk} player={player} wanted={wanted} played={played} onClose={onClose} />
        )}
      </div>
    </div>
  );
}

/** What draws the pages of a player, and a number that rises when it would draw otherwise by now. */
function usePlayedPage(desk: PageDesk, player: Player) {
  const [staleness, setStaleness] = useState(0);
  const played = useMemo(
    () => playedPageOf(desk, player, () => setStaleness((count) => count + 1)),
    [desk, player],
  );
  useEffect(() => () => played.close(), [played]);
  return { played, staleness };
}

function playedPageOf(desk: PageDesk, { replay }: Player, onStale: () => void): PlayedPage {
  const played = new PlayedPage(sceneryOf(desk), replay, onStale);
  played.uncover(desk.classroom?.scene.get().uncovered ?? []);
  return played;
}

/** Where one is, which page it is, and who did something last. */
function statusOf({ replay }: Player, time: number, desk: PageDesk): string {
  const where = t('replay.timeOf', { time: playTime(time), length: playTime(replay.length) });
  const number = desk.pages.get().findIndex(({ id }) => id === replay.at(time)?.page) + 1;
  const step = replay.lastStep(time);
  const by = step && t('replay.by', { name: desk.room.nameOf(step.author), time: timeOfDay(step.to) });
  return [where, number > 0 ? t('common.page', { number }) : '', by ?? ''].filter(Boolean).join(' · ');
}
