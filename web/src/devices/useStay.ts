import { LIVE } from '@doodla/core';
import { useEffect, useState } from 'react';
import { useStore } from '../store/useStore';
import { keepAwake } from '../present/keepAwake';
import type { Room } from '../room/room';

/** Why a device cannot stay, as a sentence; undefined while it can. Keeps its screen awake meanwhile. */
export function useStay(room: Pick<Room, 'connection' | 'classroom'>): string | undefined {
  const connection = useStore(room.connection.status);
  const state = useStore(room.classroom!.state);
  const [out, setOut] = useState(false);
  useEffect(() => room.connection.on(LIVE.out, () => setOut(true)), [room]);
  useEffect(keepAwake, []);
  if (out) return 'The teacher has taken this device out. Ask for a new code to come in again.';
  if (state?.ended) return 'The class has ended. Ask for a code when the next one begins.';
  if (connection === 'rejected') return 'This device is no longer connected. Ask for a new code.';
  return undefined;
}
