import { Circle, Flag, Minimize2, Pause, Play, Square } from 'lucide-react';
import { useEffect, useReducer, useState } from 'react';
import { playTime } from '../replay/playTime';
import type { PageDesk } from '../room/pageDesk';
import { useStore } from '../store/useStore';
import { Button } from '../ui/Button';
import { classes } from '../ui/classes';
import { DragStrip } from '../ui/DragStrip';
import { IconButton } from '../ui/IconButton';
import { t } from '../words';
import { isTyping } from '../replay/isTyping';
import { FaceView } from './FaceView';
import { LevelBar } from './LevelBar';
import type { Recorder } from './recorder';

const TICK_MS = 1000;
/** Above so many bars that lie where it would. */
const ABOVE = ['bottom-17', 'bottom-32 max-lg:bottom-17', 'bottom-47 max-lg:bottom-32'] as const;

/** While it is recorded: how long it is, how loud, and what can be done; put where it is not in the way, or folded. */
export function RecordingPanel({ recorder, desk }: { recorder: Recorder; desk: PageDesk }) {
  const phase = useStore(recorder.phase);
  const stops = useStore(recorder.stops);
  const [place, setPlace] = useState<{ x: number; y: number }>();
  const [folded, setFolded] = useState(false);
  const barsBelow = useBarsBelow(desk);
  useStopKey(recorder);
  useEndOfClass(recorder, desk);
  if (phase.is === 'counting') return <Count left={phase.left} onPause={() => void recorder.pause()} />;
  const isOn = phase.is === 'recording';
  return (
    <div
      role="group"
      aria-label={t('explain.panel')}
      data-recording={phase.is}
      // Where it was put by hand, the page does not make room for it.
      data-bar={place ? undefined : 'explaining'}
      style={place && { left: place.x, top: place.y }}
      className={classes(
        'absolute z-30 flex max-w-[calc(100%-1rem)] flex-col items-center rounded-2xl bg-board px-2 pb-1 text-paper shadow-xl forced-colors:border-2',
        !place && 'left-1/2 w-max -translate-x-1/2 compact:bottom-28 2xl:bottom-17',
        !place && ABOVE[barsBelow],
      )}
    >
      <DragStrip label={t('explain.movePanel')} hint={t('explain.dragPanel')} onPlace={setPlace} />
      <div className="flex flex-wrap items-center justify-center gap-1">
        {recorder.wish.face && !folded && <FaceView face={recorder.wish.face} className="w-20" />}
        <button
          type="button"
          className="flex min-h-11 items-center gap-2 rounded-xl px-2 font-bold tabular-nums hover:bg-board-light"
          aria-label={folded ? t('explain.unfold') : t('explain.fold')}
          aria-expanded={!folded}
          onClick={() => setFolded(!folded)}
        >
          <Circle
            aria-hidden
            size={16}
            className={classes(isOn ? 'fill-[#ff9d8f] text-[#ff9d8f]' : 'text-paper/60')}
          />
          <Length recorder={recorder} />
          {!folded && <Minimize2 aria-hidden size={16} />}
        </button>
        {!folded && (
          <>
            {recorder.wish.microphone && <LevelBar microphone={recorder.wish.microphone} />}
            <Button
              look="onBoard"
              icon={isOn ? <Pause aria-hidden size={18} /> : <Play aria-hidden size={18} />}
              onClick={() => void (isOn ? recorder.pause() : recorder.goOn())}
            >
              {isOn ? t('explain.pause') : t('explain.goOn')}
            </Button>
            <IconButton
              label={stops === 0 ? t('explain.putStop') : t('explain.putStopMore', { count: stops })}
              shortcut="!"
              icon={<Flag aria-hidden size={20} />}
              disabled={!isOn}
              onClick={() => recorder.putStop()}
            />
            <Button
              look="onBoard"
              icon={<Square aria-hidden size={16} />}
              onClick={() => void recorder.finish()}
            >
              {t('explain.finish')}
            </Button>
          </>
        )}
      </div>
      <p role="status" className="sr-only">
        {statusOf(phase.is)}
      </p>
    </div>
  );
}

/** How many bars lie where the panel would: of a shown screen, and of a recording on the page. */
function useBarsBelow(desk: PageDesk): 0 | 1 | 2 {
  const screen = useStore(desk.screen.state);
  useStore(desk.pageId);
  const isMedia = desk.page?.surface.kind === 'media';
  if (screen && isMedia) return 2;
  return screen || isMedia ? 1 : 0;
}

function statusOf(is: 'recording' | 'paused' | 'over'): string {
  return is === 'recording' ? t('explain.isRecording') : t('explain.isPaused');
}

function Count({ left, onPause }: { left: number; onPause(): void }) {
  return (
    <div className="pointer-events-none absolute inset-0 z-40 grid place-items-center">
      <div className="pointer-events-auto flex flex-col items-center gap-2 rounded-3xl bg-board/90 px-10 py-6 text-paper shadow-2xl">
        <span role="status" className="text-9xl font-bold tabular-nums">
          {left}
        </span>
        <Button look="onBoard" onClick={onPause}>
          {t('explain.notYet')}
        </Button>
      </div>
    </div>
  );
}

/** How long it is; the whole panel is not drawn anew for that. */
function Length({ recorder }: { recorder: Recorder }) {
  const [, tick] = useReducer((count: number) => count + 1, 0);
  useEffect(() => {
    const timer = setInterval(tick, TICK_MS);
    return () => clearInterval(timer);
  }, []);
  return <span role="timer">{playTime(recorder.length)}</span>;
}

/** A stop by a key, without a look away from the page. */
function useStopKey(recorder: Recorder): void {
  useEffect(() => {
    const pressed = (event: KeyboardEvent) => {
      if (event.key !== '!' || isTyping(event.target) || event.defaultPrevented) return;
      event.preventDefault();
      recorder.putStop();
    };
    window.addEventListener('keydown', pressed);
    return () => window.removeEventListener('keydown', pressed);
  }, [recorder]);
}

/** A class that ends, ends its recording. */
function useEndOfClass(recorder: Recorder, desk: PageDesk): void {
  useEffect(() => {
    const { classroom } = desk;
    return classroom?.state.subscribe(() => {
      if (classroom.state.get()?.ended) void recorder.finish();
    });
  }, [recorder, desk]);
}
