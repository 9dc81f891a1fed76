import { useEffect, useRef, useState } from 'react';
import { useStore } from '../store/useStore';
import { classes } from '../ui/classes';
import { t } from '../words';
import type { PlayedPage } from './playedPage';
import type { Player } from './player';
import { playTime } from './playTime';

/** Room that each picture has at least, CSS pixels, and how wide it is drawn, device pixels. */
const ROOM = 104;
const WIDTH = 200;

/** Pictures of moments along the time, which lead there. */
export function Thumbnails({ player, played }: { player: Player; played: PlayedPage }) {
  const row = useRef<HTMLOListElement>(null);
  const [count, setCount] = useState(0);
  useEffect(() => {
    const { current } = row;
    if (!current) return;
    const watch = new ResizeObserver(() => setCount(Math.max(3, Math.floor(current.clientWidth / ROOM))));
    watch.observe(current);
    return () => watch.disconnect();
  }, []);
  const times = Array.from({ length: count }, (_, i) => ((i + 1) / count) * player.replay.length);
  const { time } = useStore(player.state);
  const now = times.findIndex((each) => time <= each);
  return (
    <ol ref={row} className="flex justify-between gap-1 px-2">
      {times.map((each, i) => (
        <li key={i} className="min-w-0 grow basis-0">
          <button
            type="button"
            aria-label={t('replay.goTo', { time: playTime(each) })}
            onClick={() => player.seek(each)}
            className={classes(
              'block h-16 w-full overflow-hidden rounded-lg border-2 bg-board-light p-0.5 compact:h-11',
              i === now ? 'border-chalk' : 'border-transparent hover:border-board-line',
            )}
          >
            <Thumbnail player={player} played={played} time={each} />
          </button>
        </li>
      ))}
    </ol>
  );
}

function Thumbnail({ player, played, time }: { player: Player; played: PlayedPage; time: number }) {
  const canvas = useRef<HTMLCanvasElement>(null);
  useEffect(() => {
    let passed = false;
    const moment = player.replay.at(time);
    if (!moment) return;
    played.draw(moment, WIDTH).then(
      (picture) => {
        if (passed || !picture || !canvas.current) return;
        [canvas.current.width, canvas.current.height] = [picture.width, picture.height];
        canvas.current.getContext('2d')!.drawImage(picture, 0, 0);
      },
      // A small picture that cannot be drawn stays empty; its time is told all the same.
      () => undefined,
    );
    return () => {
      passed = true;
    };
  }, [player, played, time]);
  return <canvas ref={canvas} aria-hidden className="mx-auto h-full max-w-full object-contain" />;
}
