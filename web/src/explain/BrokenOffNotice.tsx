import { playTime } from '../replay/playTime';
import type { PageDesk } from '../room/pageDesk';
import { Button } from '../ui/Button';
import { t } from '../words';
import type { BrokenOff, Studio } from './studio';

interface BrokenOffNoticeProps {
  studio: Studio;
  broken: BrokenOff;
  desk: PageDesk;
}

/** Offers to go on with a recording that was broken off. */
export function BrokenOffNotice({ studio, broken, desk }: BrokenOffNoticeProps) {
  const tell = (error: Error) => desk.tellProblem(error.message);
  const { name } = broken.explanation;
  return (
    <div
      role="region"
      aria-label={t('explain.brokenOff')}
      className="absolute top-20 left-1/2 z-30 w-[min(92vw,30rem)] -translate-x-1/2 rounded-2xl border-2 border-board-line bg-board p-4 text-paper shadow-xl"
    >
      <p className="mb-3">{t('explain.wasBrokenOff', { name, time: playTime(broken.length) })}</p>
      <div className="flex flex-wrap justify-end gap-2">
        <Button look="onBoard" onClick={() => void studio.finishBroken().catch(tell)}>
          {t('explain.leaveAsItIs')}
        </Button>
        <Button onClick={() => void studio.goOn().catch(tell)}>{t('explain.goOnRecording')}</Button>
      </div>
    </div>
  );
}
