import { useState } from 'react';
import { saveOwnWork } from '../handout/saveOwnWork';
import { Button } from '../ui/Button';
import type { PageDesk } from '../room/pageDesk';
import { t } from '../words';

const HELD = {
  ended: 'classroom.heldByTheEnd',
  'pens-down': 'classroom.heldByPensDown',
} as const;

interface HeldWorkProps {
  desk: PageDesk;
  waiting: number;
  why: keyof typeof HELD;
}

/** What was written without a connection may not be sent now. */
export default function HeldWork({ desk, waiting, why }: HeldWorkProps) {
  const [problem, setProblem] = useState<string>();
  const save = () => saveOwnWork(desk).catch((error: Error) => setProblem(error.message));
  return (
    <div
      role="status"
      className="absolute top-16 left-1/2 z-30 flex w-120 max-w-[calc(100vw-1rem)] -translate-x-1/2 flex-wrap items-center gap-3 rounded-2xl border-2 border-alarm bg-paper px-4 py-2 font-bold text-ink shadow-xl"
    >
      <p className="grow basis-60">
        {t(HELD[why], { count: waiting })} {problem}
      </p>
      <Button onClick={() => void save()}>{t('classroom.saveAsPdf')}</Button>
    </div>
  );
}
