import type { LogRef } from '@doodla/core';
import type { Room } from './room';

/** The log of the lesson or class that is open. */
export function logOf(room: Room): LogRef {
  return room.sitting === undefined
    ? { kind: 'lesson', id: room.lesson }
    : { kind: 'sitting', id: room.sitting };
}
