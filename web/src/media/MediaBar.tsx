import { Pause, Play, Volume2 } from 'lucide-react';
import { useStore } from '../store/useStore';
import { classes } from '../ui/classes';
import { Button } from '../ui/Button';
import { IconButton } from '../ui/IconButton';
import type { PageDesk } from '../room/pageDesk';
import type { MediaFrame } from './mediaFrame';
import { t } from '../words';

interface MediaBarProps {
  desk: PageDesk;
  recording: MediaFrame;
  side: 'left' | 'right';
  /** Whether the bar of a shown screen lies where this one would. */
  isRaised: boolean;
}

/** Plays the recording on the page, in step for all; students see how far it is. */
export default function MediaBar({ desk, recording, side, isRaised }: MediaBarProps) {
  const { loaded, duration, position, playing, silenced } = useStore(recording.state);
  return (
    <div
      role="group"
      aria-label={t('media.recording')}
      data-bar="recording"
      className={classes(
        'absolute z-20 flex max-w-[calc(100%-1rem)] items-center gap-2 rounded-2xl bg-board forced-colors:border-2 p-1 text-paper shadow-xl lg:max-w-[calc(100%-12rem)] 2xl:max-w-[calc(100%-52rem)]',
        isRaised ? 'bottom-32 2xl:bottom-17' : 'bottom-17 2xl:bottom-2',
        side === 'left' ? 'left-44 compact:left-2' : 'right-44 compact:right-2',
      )}
    >
      {loaded < 1 || duration === 0 ? (
        <span role="status" className="px-3">
          {t('media.fetchingTheRecording', { part: loaded })}
        </span>
      ) : (
        <>
          {desk.isTeacher && (
            <IconButton
              label={playing ? t('media.stopTheRecording') : t('media.playTheRecording')}
              icon={playing ? <Pause aria-hidden /> : <Play aria-hidden />}
              onClick={() => recording.toggle()}
            />
          )}
          <input
            type="range"
            aria-label={t('media.placeInTheRecording')}
            aria-valuetext={clock(position)}
            min={0}
            max={duration}
            step={0.1}
            value={position}
            disabled={!desk.isTeacher}
            onChange={(event) => recording.seek(Number(event.target.value))}
            className="h-11 min-w-20 grow accent-paper"
          />
          <span className="px-2 text-sm tabular-nums">
            {clock(position)} / {clock(duration)}
          </span>
          {silenced && (
            <Button
              look="onBoard"
              icon={<Volume2 aria-hidden size={18} />}
              onClick={() => recording.unsilence()}
            >
              {t('media.hearIt')}
            </Button>
          )}
        </>
      )}
    </div>
  );
}

function clock(seconds: number): string {
  const whole = Math.floor(seconds);
  return `${Math.floor(whole / 60)}:${String(whole % 60).padStart(2, '0')}`;
}
