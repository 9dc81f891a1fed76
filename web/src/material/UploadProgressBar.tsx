import type { UploadProgress } from '../api/sendDocument';
import { ProgressBar } from '../ui/ProgressBar';

/** How far a document is on its way to being pages. */
export function UploadProgressBar({ progress }: { progress: UploadProgress }) {
  if (progress.phase === 'waiting') return <ProgressBar label={waitingFor(progress.before)} part={0} />;
  const label = progress.phase === 'sending' ? 'Sending' : 'Turning it into pages';
  return <ProgressBar label={label} part={progress.part} />;
}

function waitingFor(documents: number): string {
  return `Waiting for ${documents === 1 ? 'another document' : `${documents} other documents`}`;
}
