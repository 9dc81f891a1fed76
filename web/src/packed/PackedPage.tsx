import type { ReactNode } from 'react';
import { Problem } from '../ui/Problem';
import { t } from '../words';
import { PackedView } from './PackedView';
import { usePack } from './usePack';

/** A packed explanation, or why it does not play. */
export function PackedPage({ bytes, actions }: { bytes: Uint8Array; actions?: ReactNode }) {
  const { pack, problem } = usePack(bytes);
  if (pack) return <PackedView pack={pack} problem={problem} actions={actions} />;
  return (
    <main className="grid min-h-full place-items-center bg-board p-4">
      <div className="w-full max-w-md rounded-2xl bg-paper p-6 text-ink">
        {problem === undefined ? <p role="status">{t('common.opening')}</p> : <Problem>{problem}</Problem>}
      </div>
    </main>
  );
}
