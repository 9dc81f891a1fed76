import type { SittingSummary } from '@doodla/core';
import { useState } from 'react';
import { keepLonger } from '../api/privacy';
import { t } from '../words';
import { dayOf } from '../words/dates';

const YEAR_DAYS = 365;

interface KeptUntilProps {
  sitting: SittingSummary;
  onProblem(message: string): void;
}

/** Until when an ended class is kept, and a way to keep it for longer. */
export function KeptUntil({ sitting, onProblem }: KeptUntilProps) {
  const [goneAt, setGoneAt] = useState(sitting.goneAt);
  if (goneAt === null || sitting.droppedAt !== null) return null;
  const keep = () => {
    keepLonger(sitting.id, YEAR_DAYS).then(
      (reply) => setGoneAt(reply.goneAt),
      (error: Error) => onProblem(error.message),
    );
  };
  return (
    <p className="flex flex-wrap items-center gap-x-2 text-sm text-ink-soft" role="status">
      {t('sittings.keptUntil', { day: dayOf(goneAt) })}
      <button type="button" className="min-h-11 font-bold underline" onClick={keep}>
        {t('sittings.keepAYearLonger')}
      </button>
    </p>
  );
}
