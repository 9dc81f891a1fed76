import { Circle } from 'lucide-react';
import { useState } from 'react';
import { Button } from '../ui/Button';
import { t } from '../words';

/** The light of a class that is being recorded; where the school wants it, said in words that one says to have read. */
export function RecordingSign({ told }: { told: boolean }) {
  const [known, setKnown] = useState(false);
  return (
    <span
      role="status"
      data-testid="recorded"
      title={t('explain.classIsRecorded')}
      className="flex flex-wrap items-center gap-2"
    >
      <Circle aria-hidden size={14} className="animate-pulse fill-[#ff9d8f] text-[#ff9d8f]" />
      {told && !known ? (
        <>
          <span className="max-w-md">{t('explain.tellsStudents')}</span>
          <Button onClick={() => setKnown(true)}>{t('explain.iKnow')}</Button>
        </>
      ) : (
        <span>
          <span aria-hidden>{t('explain.isRecordedNow')}</span>
          <span className="sr-only">{t('explain.classIsRecorded')}</span>
        </span>
      )}
    </span>
  );
}
