import { LIVE } from '@doodla/core';
import { useEffect, useState } from 'react';
import { useStore } from '../store/store';
import { keepAwake } from '../present/keepAwake';
import type { Workspace } from '../workspace/workspace';

/** Why a device cannot stay, as a sentence; undefined while it can. Keeps its screen awake meanwhile. */
export function useStay(workspace: Workspace): string | undefined {
  const connection = useStore(workspace.connection.status);
  const state = useStore(workspace.classroom!.state);
  const [out, setOut] = useState(false);
  useEffect(() => workspace.connection.on(LIVE.out, () => setOut(true)), [workspace]);
  useEffect(keepAwake, []);
  if (out) return 'The teacher has taken this device out. Ask for a new code to come in again.';
  if (state?.ended) return 'The class has ended. Ask for a code when the next one begins.';
  if (connection === 'rejected') return 'This device is no longer connected. Ask for a new code.';
  return undefined;
}
