import type { ReactedMessage } from '@doodla/core';
import { LIVE } from '@doodla/core';
import { useEffect } from 'react';
import type { Room } from '../room/room';
import { t } from '../words';

const SAID = { clear: 'asking.isClearTo', lost: 'asking.isLost' } as const;

/** Tells the teacher of students' reactions. */
export function useReactions(room: Room | undefined): void {
  useEffect(() => {
    if (!room?.sitting || !room.isTeacher) return;
    return room.connection.on<[ReactedMessage]>(LIVE.reacted, ({ sitting, student, which }) => {
      if (sitting === room.sitting) room.tellNotice(t(SAID[which], { name: room.nameOf(student) }));
    });
  }, [room]);
}
