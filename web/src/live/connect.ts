import type { Line } from '@doodla/core/client';
import { SocketLine } from '@doodla/core/client';
import { io } from 'socket.io-client';
import { sentenceOf } from '../words/sentences';

/**
 * The one live connection of a browser tab, for a lesson with its classes. Students give their token; teachers are known by
 * their cookie.
 */
export function connect(lesson: string, token?: string): Line {
  const socket = io({
    path: '/live',
    transports: ['websocket', 'polling'],
    tryAllTransports: true,
    reconnectionDelay: 300,
    reconnectionDelayMax: 3000,
    query: { for: lesson },
    auth: token === undefined ? {} : { token },
  });
  return new SocketLine(socket, undefined, sentenceOf);
}
