import type { Shown } from '@doodla/core/explain';
import { useEffect, useRef, useState } from 'react';
import type { Context } from '../canvas/markPainter';
import { useStore } from '../store/useStore';
import { t } from '../words';
import { FacePicture } from './FacePicture';
import { liveExtent, showLive } from './livePage';
import { paintShown } from './paintShown';
import type { PlayedPage } from './playedPage';
import type { PlayedPictures } from './playedPictures';
import type { Player } from './player';

/** Device pixels across that a page is drawn at most. */
const MOST_PIXELS = 4096;

/** What was shown beside the pages at a time of the playback. */
export interface Beside {
  at(time: number): Shown | undefined;
  /** What moved under the marks, and whoever explained. */
  readonly live: PlayedPictures;
  readonly face: PlayedPictures;
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
  const news = usePictures(player, beside);
  const width = page && room ? Math.floor(wide ? room.width : fitted(page, room)) : 0;

  useEffect(() => {
    if (!moment || !page || width === 0) return;
    let passed = false;
    const shown = beside?.at(time);
    if (shown) played.uncover(shown.uncovered);
    const ratio = window.devicePixelRatio;
    const pixels = Math.min(MOST_PIXELS, Math.round(width * ratio));
    const live = shown?.live?.page === page.id ? shown.live : undefined;
    const film = live && beside?.live.now;
    if (canvas.current && shown && live && film) {
      const draw = (ctx: Context, across: number, down: number) => ctx.drawImage(film, 0, 0, across, down);
      showLive(canvas.current, played, moment, { page, live: { ...live, draw } }, pixels);
      paintShown(canvas.current, page, liveExtent(page, live), shown, ratio);
      canvas.current.dataset.time = String(Math.round(time));
      return;
    }
    played.groundOf(page, pixels).then(
      (ground) => {
        if (passed || !canvas.current) return;
        played.show(canvas.current, moment, ground);
        if (shown) paintShown(canvas.current, page, played.extentOf(page), shown, ratio);
        canvas.current.dataset.time = String(Math.round(time));
      },
      (error: Error) => !passed && onProblem(error.message),
    );
    return () => {
      passed = true;
    };
  });
  // Drawn with each rendering, since each is another moment; a stale picture is a rendering of its own.
  void [staleness, news];
  return (
    <div className="relative flex min-h-40 flex-[1_1_0]">
      <div ref={frame} className="grow overflow-auto">
        <canvas
          ref={canvas}
          role="img"
          data-testid="replay-page"
          aria-label={t('replay.pageThen')}
          className="mx-auto bg-white"
          style={page && { width, aspectRatio: `${page.width} / ${page.height}` }}
        />
      </div>
      {beside && <FacePicture face={beside.face} />}
    </div>
  );
}

/** How wide a page is that fits into a room. */
function fitted(page: { width: number; height: number }, room: { width: number; height: number }): number {
  return Math.min(room.width, (room.height * page.width) / page.height);
}

/** Keeps moving pictures in step with what plays; a number that rises when there is another at the same time. */
function usePictures(player: Player, beside: Beside | undefined): number {
  const [news, setNews] = useState(0);
  useEffect(() => {
    if (!beside) return;
    const { live, face } = beside;
    const stops = [
      live.changed.subscribe(() => setNews((count) => count + 1)),
      live.follow(player),
      face.follow(player),
    ];
    return () => stops.forEach((stop) => stop());
  }, [player, beside]);
  return news;
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
