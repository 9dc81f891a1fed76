import { useState } from 'react';
import type { FormEvent } from 'react';
import type { DevicePlace } from '@doodla/core';
import { enterAsDevice } from '../api/devices';
import { Button } from '../ui/Button';
import { Problem } from '../ui/Problem';
import { Front } from '../ui/Front';
import { TextField } from '../ui/TextField';
import { t } from '../words';

interface EnterDeviceProps {
  title: string;
  /** Why one has to come in again. */
  reason?: string | undefined;
  onEntered(place: DevicePlace): void;
}

/** Where a display, or a pad that lost its place, types a code. */
export function EnterDevice({ title, reason, onEntered }: EnterDeviceProps) {
  const [problem, setProblem] = useState(reason);
  const [busy, setBusy] = useState(false);
  const enter = async (event: FormEvent<HTMLFormElement>) => {
    event.preventDefault();
    const code = new FormData(event.currentTarget).get('code') as string;
    setBusy(true);
    try {
      onEntered(await enterAsDevice(code));
    } catch (error) {
      setProblem((error as Error).message);
      setBusy(false);
    }
  };
  return (
    <Front title={title}>
      <p className="mb-4">{t('devices.theCodeIsOnThe')}</p>
      <form onSubmit={(event) => void enter(event)}>
        <TextField
          label={t('devices.code')}
          name="code"
          autoComplete="off"
          autoCapitalize="characters"
          spellCheck={false}
          maxLength={12}
          required
          className="text-center text-2xl tracking-[0.3em] uppercase"
        />
        <Problem>{problem}</Problem>
        <Button type="submit" look="main" className="w-full" disabled={busy}>
          {t('devices.connect')}
        </Button>
      </form>
    </Front>
  );
}
