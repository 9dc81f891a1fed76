import type { Shown } from '@doodla/core/explain';
import { useEffect, useRef, useState } from 'react';
import { useStore } from '../store/useStore';
import { t } from '../words';
import { paintShown } from './paintShown';
import type { PlayedPage } from './playedPage';
import type { Player } from './player';

/** Device pixels across that a page is drawn at most. */
const MOST_PIXELS = 4096;

/** What was shown beside the pages at a time of the playback. */
export interface Beside {
  at(time: number): Shown | undefined;
}

interface ReplayStageProps {
  player: Player;
  played: PlayedPage;
  /** Told apart by a number that rises when what was drawn looks otherwise by now. */
  staleness: number;
  /** Whether the page is as wide as there is room, and scrolled. */
  wide: boolean;
  beside: Beside | undefined;
  onProblem(message: string): void;
}

/** The page at the moment that is played, as large as there is room for. */
export function ReplayStage({ player, played, staleness, wide, beside, onProblem }: ReplayStageProps) {
  const frame = useRef<HTMLDivElement>(null);
  const canvas = useRef<HTMLCanvasElement>(null);
  const room = useRoomFor(frame);
  const { time } = useStore(player.state);
  const moment = player.replay.at(time);
  const page = moment && played.pageOf(moment);
  const width = page && room ? Math.floor(wide ? room.width : fitted(page, room)) : 0;

  useEffect(() => {
    if (!moment || !page || width === 0) return;
    let passed = false;
    const shown = beside?.at(time);
    if (shown) played.uncover(shown.uncovered);
    const pixels = Math.min(MOST_PIXELS, Math.round(width * window.devicePixelRatio));
    played.groundOf(page, pixels).then(
      (ground) => {
        if (passed || !canvas.current) return;
        played.show(canvas.current, moment, ground);
        if (shown) paintShown(canvas.current, page, played.extentOf(page), shown, window.devicePixelRatio);
        canvas.current.dataset.time = String(Math.round(time));
      },
      (error: Error) => !passed && onProblem(error.message),
    );
    return () => {
      passed = true;
    };
  });
  // Drawn with each rendering, since each is another moment; a stale picture is a rendering of its own.
  void staleness;
  return (
    <div ref={frame} className="min-h-40 flex-[1_1_0] overflow-auto">
      <canvas
        ref={canvas}
        role="img"
        data-testid="replay-page"
        aria-label={t('replay.pageThen')}
        className="mx-auto bg-white"
        style={page && { width, aspectRatio: `${page.width} / ${page.height}` }}
      />
    </div>
  );
}

/** How wide a page is that fits into a room. */
function fitted(page: { width: number; height: number }, room: { width: number; height: number }): number {
  return Math.min(room.width, (room.height * page.width) / page.height);
}

/** How much room there is in an element, CSS pixels. */
function useRoomFor(element: React.RefObject<HTMLElement | null>) {
  const [room, setRoom] = useState<{ width: number; height: number }>();
  useEffect(() => {
    const { current } = element;
    if (!current) return;
    const look = () => setRoom({ width: current.clientWidth, height: current.clientHeight });
    const watch = new ResizeObserver(look);
    watch.observe(current);
    return () => watch.disconnect();
  }, [element]);
  return room;
}
