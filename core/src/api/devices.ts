import type { DeviceKind } from '../live/messages.js';

/** A display's, pad's or companion's place in a class. */
export interface DevicePlace {
  kind: DeviceKind;
  sitting: string;
  lesson: string;
  token: string;
}

/** A companion's place in a lesson that is being prepared. */
export interface LessonPlace {
  kind: 'companion';
  lesson: string;
  token: string;
}

export interface InviteRequest {
  kind: DeviceKind;
}

/** A code that lets one display or pad in, and the address to open there. */
export interface InviteReply {
  code: string;
  address: string;
}

export interface DeviceReply {
  id: string;
  kind: DeviceKind;
  enteredAt: number | null;
}

export interface DeviceCodeRequest {
  code: string;
}
