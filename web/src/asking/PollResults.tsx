import type { PollState } from '@doodla/core';
import { lazy, Suspense, useCallback, useRef, useState } from 'react';
import type { PageDesk } from '../room/pageDesk';
import { Button } from '../ui/Button';
import { t } from '../words';
import { optionNames } from '../words/optionNames';

const PollChart = lazy(() => import('./PollChart'));

interface PollResultsProps {
  desk: PageDesk;
  poll: PollState;
  onPlaced(): void;
}

/** What the class has answered so far; on a display it stays hidden until one looks or the question is closed. */
export function PollResults({ desk, poll, onPlaced }: PollResultsProps) {
  const { asking } = desk.room;
  const [looking, setLooking] = useState(false);
  const canvas = useRef<HTMLCanvasElement>(undefined);
  const keep = useCallback((drawn: HTMLCanvasElement) => (canvas.current = drawn), []);
  const isSeen = looking || !poll.hidden || !poll.open;
  const place = async () => {
    const picture = await pictureOf(canvas.current!, poll.question);
    await desk.pictureActions.place([picture]);
    onPlaced();
  };
  return (
    <div>
      {poll.question && <p className="mb-2 text-lg font-bold">{poll.question}</p>}
      <p role="status" className="mb-3">
        {t('asking.haveAnswered', { count: poll.answered })}
      </p>
      {isSeen && (
        <Suspense>
          <PollChart poll={poll} onDrawn={keep} />
        </Suspense>
      )}
      {isSeen && !poll.anonymous && <Named desk={desk} poll={poll} />}
      <div className="mt-4 flex flex-wrap gap-3">
        {!isSeen && <Button onClick={() => setLooking(true)}>{t('asking.look')}</Button>}
        <Button look="main" onClick={() => void asking!.change(poll.id, { open: !poll.open })}>
          {t(poll.open ? 'asking.close' : 'asking.openAgain')}
        </Button>
        {isSeen && (
          <Button onClick={() => void place().catch((error: Error) => desk.tellProblem(error.message))}>
            {t('asking.putOnThePage')}
          </Button>
        )}
        <Button onClick={() => void asking!.change(poll.id, { open: false, away: true })}>
          {t('asking.putAway')}
        </Button>
      </div>
    </div>
  );
}

/** Who has answered what. */
function Named({ desk, poll }: { desk: PageDesk; poll: PollState }) {
  const names = optionNames(poll);
  return (
    <details className="mt-3">
      <summary className="min-h-11 cursor-pointer py-2 font-bold">{t('asking.whoHasAnsweredWhat')}</summary>
      <ul>
        {poll.answers?.map(({ student, value }) => (
          <li key={student}>
            {t('asking.answerOf', {
              name: student === null ? '' : desk.room.nameOf(student),
              answer: names[Number(value)] ?? String(value),
            })}
          </li>
        ))}
      </ul>
    </details>
  );
}

/** The chart on paper, under its question, to be put on a page. */
async function pictureOf(chart: HTMLCanvasElement, question: string): Promise<Blob> {
  const room = 24;
  const head = question ? 40 : 0;
  const canvas = document.createElement('canvas');
  canvas.width = chart.width + 2 * room;
  canvas.height = chart.height + 2 * room + head;
  const ctx = canvas.getContext('2d')!;
  ctx.fillStyle = '#ffffff';
  ctx.fillRect(0, 0, canvas.width, canvas.height);
  ctx.fillStyle = '#1d2723';
  ctx.font = 'bold 24px Andika';
  ctx.fillText(question, room, room + 22, canvas.width - 2 * room);
  ctx.drawImage(chart, room, room + head);
  return new Promise((resolve, reject) => {
    canvas.toBlob((blob) => (blob ? resolve(blob) : reject(new Error(t('asking.noPicture')))), 'image/png');
  });
}
