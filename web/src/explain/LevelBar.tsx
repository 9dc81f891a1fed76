import type { Store } from '@doodla/core/client';
import { MicOff } from 'lucide-react';
import { useEffect, useRef } from 'react';
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
  const hearing = useStore(microphone.hearing);
  return (
    <>
      <Level level={microphone.level} />
      {hearing !== 'fine' && (
        <p role="alert" className="flex basis-full items-center gap-2 py-1 text-sm font-bold">
          <MicOff aria-hidden size={18} className="shrink-0" /> {WARNINGS[hearing]}
        </p>
      )}
    </>
  );
}

/** Set by hand: it changes five times a second, while somebody writes. */
function Level({ level }: { level: Store<number> }) {
  const meter = useRef<HTMLSpanElement>(null);
  const bar = useRef<HTMLSpanElement>(null);
  useEffect(() => {
    const show = () => {
      meter.current?.setAttribute('aria-valuenow', String(Math.round(level.get() * 100)));
      if (bar.current) bar.current.style.transform = `scaleX(${level.get()})`;
    };
    show();
    return level.subscribe(show);
  }, [level]);
  return (
    <span
      ref={meter}
      role="meter"
      aria-label={t('explain.level')}
      aria-valuenow={0}
      aria-valuemin={0}
      aria-valuemax={100}
      className="h-3 w-24 overflow-hidden rounded-full border border-current"
    >
      <span ref={bar} className="block h-full origin-left bg-current" />
    </span>
  );
}
