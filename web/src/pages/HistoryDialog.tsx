import { useQuery } from '@tanstack/react-query';
import type { PageState } from '@doodla/core';
import { isExported, isIn, PageHistory } from '@doodla/core';
import { ChevronLeft, ChevronRight } from 'lucide-react';
import { useEffect, useMemo, useRef, useState } from 'react';
import { historyQuery } from '../api/history';
import { bringBack } from '../replay/bringBack';
import { logOf } from '../room/logOf';
import { paintMarks } from '../canvas/paintMarks';
import { drawThumbnail, loadPictures } from '../room/thumbnail';
import type { PageDesk } from '../room/pageDesk';
import { Button } from '../ui/Button';
import { Modal } from '../ui/Modal';
import { Problem } from '../ui/Problem';
import type { NumberedPage } from './numberedPage';
import { t } from '../words';
import { exactTime } from '../words/dates';

/** Width of the picture, device pixels. */
const WIDTH = 900;

/** The states that a page has been in: a slider over them, and bringing one back. */
export default function HistoryDialog({ page, number, desk, onClose }: NumberedPage & { onClose(): void }) {
  const { room } = desk;
  const log = useMemo(() => logOf(room), [room]);
  const space = room.spaces.shownOn(page.id);
  const { data, error } = useQuery(historyQuery(log, page.id));
  const history = useMemo(() => data && new PageHistory(page.id, isIn(space), data), [data, page.id, space]);
  const [chosen, setChosen] = useState<number>();
  const [problem, setProblem] = useState<string>();
  const [busy, setBusy] = useState(false);
  const last = history?.steps.length ?? 0;
  // Before its first step there is no page.
  const at = Math.max(1, chosen ?? last);
  const step = history?.steps[at - 1];

  const restore = async () => {
    setBusy(true);
    try {
      await bringBack(room, { page: page.id, number, space, seq: step!.seq, at: step!.at });
      onClose();
    } catch (failed) {
      setProblem((failed as Error).message);
      setBusy(false);
    }
  };

  return (
    <Modal
      title={t('pages.earlierStatesOfPage', { number })}
      description={t('pages.everythingWasKept')}
      wide
      open
      onOpenChange={onClose}
    >
      <Problem>{problem ?? error?.message}</Problem>
      {!history && !error && <p>{t('common.opening')}</p>}
      {history && step && (
        <>
          <StatePicture desk={desk} state={history.after(at)} now={page} />
          <p className="mt-3 font-bold" role="status">
            {t('pages.byAt', { name: room.nameOf(step.author), time: exactTime(step.at) })}
          </p>
          <div className="flex items-center gap-2">
            <Button
              aria-label={t('pages.oneStepEarlier')}
              icon={<ChevronLeft aria-hidden size={22} className="rtl:-scale-x-100" />}
              disabled={at <= 1}
              onClick={() => setChosen(at - 1)}
            />
            <input
              type="range"
              aria-label={t('pages.earlierStates')}
              aria-valuetext={t('pages.stepOf', { at, count: last })}
              min={1}
              max={last}
              value={at}
              onChange={(event) => setChosen(Number(event.target.value))}
              className="h-11 min-w-0 grow accent-board"
            />
            <Button
              aria-label={t('pages.oneStepLater')}
              icon={<ChevronRight aria-hidden size={22} className="rtl:-scale-x-100" />}
              disabled={at >= last}
              onClick={() => setChosen(at + 1)}
            />
          </div>
          <p className="mb-4 text-ink-soft">{t('pages.stepOf', { at, count: last })}</p>
          <Button look="main" disabled={at >= last || busy} onClick={() => void restore()}>
            {t('pages.bringThisStateBack')}
          </Button>
        </>
      )}
    </Modal>
  );
}

interface StatePictureProps {
  desk: PageDesk;
  state: PageState;
  now: NumberedPage['page'];
}

/** A state of a page as a picture; while one pulls the slider, states that were passed are left out. */
function StatePicture({ desk, state, now }: StatePictureProps) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const ground = useRef<{ of: string; picture: HTMLCanvasElement }>(undefined);
  const { width, height } = desk.extentOf(now);
  useEffect(() => {
    let passed = false;
    const draw = async () => {
      const page = { ...now, ...state.page, id: now.id };
      const of = JSON.stringify(page.surface);
      if (ground.current?.of !== of) {
        const picture = document.createElement('canvas');
        await drawThumbnail(picture, page, desk, WIDTH, ({ id }) => isUnder(desk, id));
        ground.current = { of, picture };
      }
      const marks = [...state.marks.values()].filter(isExported);
      await loadPictures(page, marks, desk);
      if (passed || !canvas.current) return;
      const { picture } = ground.current;
      canvas.current.width = picture.width;
      canvas.current.height = picture.height;
      canvas.current.getContext('2d')!.drawImage(picture, 0, 0);
      paintMarks(canvas.current, desk.extentOf(page), marks, desk.pictures);
    };
    draw().catch((error: Error) => desk.tellProblem(error.message));
    return () => {
      passed = true;
    };
  }, [desk, state, now]);
  return (
    <canvas
      ref={canvas}
      role="img"
      aria-label={t('pages.thePageAsItWas')}
      className="mx-auto max-h-[52dvh] max-w-full rounded-lg border-2 border-paper-line bg-white"
      style={{ aspectRatio: `${width} / ${height}` }}
    />
  );
}

/** Whether a mark is a prepared one that lies under those of the class. */
function isUnder({ room }: PageDesk, id: string): boolean {
  return room.target !== room.lessonLog && room.lessonLog.state.marks.has(id);
}
