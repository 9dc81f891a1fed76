import type { UploadProgress } from '../api/sendDocument';
import { ProgressBar } from '../ui/ProgressBar';
import { t } from '../words';

/** How far a document is on its way to being pages. */
export function UploadProgressBar({ progress }: { progress: UploadProgress }) {
  if (progress.phase === 'waiting')
    return <ProgressBar label={t('material.waitingForOthers', { count: progress.before })} part={0} />;
  const label = progress.phase === 'sending' ? t('material.sending') : t('material.turningItIntoPages');
  return <ProgressBar label={label} part={progress.part} />;
}
