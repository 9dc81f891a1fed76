import { LIVE } from '@doodla/core';
import { useEffect, useState } from 'react';
import { useStore } from '../store/useStore';
import { keepAwake } from '../present/keepAwake';
import type { Room } from '../room/room';
import { t } from '../words';

/** Why a device cannot stay, as a sentence; undefined while it can. Keeps its screen awake meanwhile. */
export function useStay(room: Pick<Room, 'connection' | 'classroom'>): string | undefined {
  const connection = useStore(room.connection.status);
  const state = useStore(room.classroom!.state);
  const [out, setOut] = useState(false);
  useEffect(() => room.connection.on(LIVE.out, () => setOut(true)), [room]);
  useEffect(keepAwake, []);
  if (out) return t('devices.theTeacherHasTakenThis');
  if (state?.ended) return t('devices.theClassHasEndedAsk');
  if (connection === 'rejected') return t('devices.thisDeviceIsNoLonger');
  return undefined;
}
