import { Captions, StretchHorizontal } from 'lucide-react';
import type { ReactNode } from 'react';
import { useCallback, useEffect, useMemo, useState } from 'react';
import { CaptionLine } from '../replay/CaptionLine';
import { ChapterList } from '../replay/ChapterList';
import { HeldSign } from '../replay/HeldSign';
import { PlayedPage } from '../replay/playedPage';
import { playTime } from '../replay/playTime';
import { ReplayControls } from '../replay/ReplayControls';
import { ReplayStage } from '../replay/ReplayStage';
import { StopFlags } from '../replay/StopFlags';
import { Thumbnails } from '../replay/Thumbnails';
import { TimeBar } from '../replay/TimeBar';
import { usePlayKeys } from '../replay/usePlayKeys';
import { VoiceSwitch } from '../replay/VoiceSwitch';
import { useStore } from '../store/useStore';
import { IconButton } from '../ui/IconButton';
import { Problem } from '../ui/Problem';
import { t } from '../words';
import type { OpenedPack } from './openPack';

interface PackedViewProps {
  pack: OpenedPack;
  /** Told of beside the explanation, such as that its voice cannot be played here. */
  problem?: string | undefined;
  /** What else can be done with it. */
  actions?: ReactNode;
}

/** A packed explanation with all that it is played by. */
export function PackedView({ pack, problem: first, actions }: PackedViewProps) {
  const { explanation, player, sound } = pack;
  const { title, stops, chapters, cues, colours, played: parts } = explanation;
  const { played, staleness } = usePlayed(pack);
  const [wide, setWide] = useState(false);
  const [isRead, setRead] = useState(true);
  const [problem, setProblem] = useState<string>();
  const { time } = useStore(player.state);
  usePlayKeys(player);
  const colourOf = useCallback((writer: string) => colours[writer], [colours]);
  const status = t('replay.timeOf', { time: playTime(time), length: playTime(player.replay.length) });
  return (
    <main className="flex min-h-full flex-col gap-2 overflow-auto bg-board p-3 text-paper compact:p-1">
      <header className="flex min-h-11 flex-wrap items-center gap-2">
        <h1 className="me-2 min-w-0 truncate text-xl font-bold">{title}</h1>
        {parts.some(({ voice }) => voice) && <VoiceSwitch sound={sound} />}
        {cues.length > 0 && (
          <IconButton
            label={t('explain.captionsOff')}
            icon={<Captions aria-hidden size={22} />}
            active={isRead}
            tooltipSide="none"
            onClick={() => setRead(!isRead)}
          />
        )}
        <IconButton
          label={t('replay.pageWidth')}
          icon={<StretchHorizontal aria-hidden size={22} />}
          active={wide}
          tooltipSide="none"
          onClick={() => setWide(!wide)}
        />
        <span className="grow" />
        {actions}
      </header>
      <Problem>{problem ?? first}</Problem>
      <ReplayStage
        player={player}
        played={played}
        staleness={staleness}
        wide={wide}
        beside={pack}
        onProblem={setProblem}
      />
      {isRead && <CaptionLine player={player} cues={cues} />}
      <HeldSign player={player} stops={stops} />
      <Thumbnails player={player} played={played} />
      <StopFlags player={player} stops={stops} />
      <TimeBar player={player} colourOf={colourOf} status={status} />
      <div className="flex flex-wrap items-center justify-between gap-x-4 gap-y-1">
        <ReplayControls player={player} />
        {chapters.length > 1 && (
          <ChapterList
            chapters={chapters}
            at={chapters.findLastIndex(({ at }) => at <= time)}
            onGo={(to) => player.seek(to)}
          />
        )}
        <p className="min-w-0 grow truncate" data-testid="replay-status">
          {status}
        </p>
        <p className="text-sm compact:hidden">{t('explain.keysToPlay')}</p>
      </div>
    </main>
  );
}

/** What draws the pages, and a number that rises when it would draw otherwise by now. */
function usePlayed({ scenery, player }: OpenedPack) {
  const [staleness, setStaleness] = useState(0);
  const played = useMemo(
    () => new PlayedPage(scenery, player.replay, () => setStaleness((count) => count + 1)),
    [scenery, player],
  );
  useEffect(() => () => played.close(), [played]);
  return { played, staleness };
}
