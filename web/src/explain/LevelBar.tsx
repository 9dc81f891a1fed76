import { MicOff } from 'lucide-react';
import { useStore } from '../store/useStore';
import { t } from '../words';
import type { Hearing, Microphone } from '../media/microphone';

const WARNINGS: Readonly<Record<Exclude<Hearing, 'fine'>, string>> = {
  silent: t('explain.nothingComesIn'),
  muted: t('explain.microphoneMuted'),
  gone: t('explain.microphoneGone'),
};

/** How loud a microphone is, and what is wrong with it. */
export function LevelBar({ microphone }: { microphone: Microphone }) {
  const level = useStore(microphone.level);
  const hearing = useStore(microphone.hearing);
  return (
    <>
      <span
        role="meter"
        aria-label={t('explain.level')}
        aria-valuenow={Math.round(level * 100)}
        aria-valuemin={0}
        aria-valuemax={100}
        className="h-3 w-24 overflow-hidden rounded-full border border-current"
      >
        <span className="block h-full bg-current" style={{ width: `${Math.round(level * 100)}%` }} />
      </span>
      {hearing !== 'fine' && (
        <p role="alert" className="flex basis-full items-center gap-2 py-1 text-sm font-bold">
          <MicOff aria-hidden size={18} className="shrink-0" /> {WARNINGS[hearing]}
        </p>
      )}
    </>
  );
}
