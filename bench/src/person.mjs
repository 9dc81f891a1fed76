// Somebody in a lesson or class, connected as a browser is, with what a browser keeps of it.
import { FREE } from '@doodla/core';
import { ClassClient, LogClient, MemoryOutbox, SocketLine } from '@doodla/core/client';
import { io } from 'socket.io-client';

/** Operations of so many marks each fill a page. */
const AT_ONCE = 250;

export class Person {
  /** Students are known by `token`, teachers by `cookie`; `about` is the lesson that they come for. */
  constructor(url, { token, cookie, about }) {
    this.socket = io(url, {
      path: '/live',
      transports: ['websocket'],
      forceNew: true,
      reconnectionDelay: 300,
      reconnectionDelayMax: 3000,
      ...(about && { query: { for: about } }),
      ...(token && { auth: { token } }),
      ...(cookie && { extraHeaders: { cookie } }),
    });
    this.line = new SocketLine(this.socket, 60_000);
  }

  /** Opens a log; its pages are here when this resolves. */
  async open(ref) {
    const log = new LogClient(ref, this.line, {
      situation: () => FREE,
      outboxFor: () => new MemoryOutbox(),
    });
    log.refused.subscribe((sentence) => {
      throw new Error(sentence);
    });
    await until(log.status, ({ ready }) => ready);
    return log;
  }

  async enter(sitting) {
    const classroom = new ClassClient(sitting, this.line);
    await until(classroom.state, (state) => state !== undefined);
    return classroom;
  }

  close() {
    this.line.close();
  }
}

/** Puts marks on a page; they are stored when this resolves. */
export async function write(log, marks) {
  for (let i = 0; i < marks.length; i += AT_ONCE)
    log.perform(marks.slice(i, i + AT_ONCE).map((mark) => ({ do: 'add', mark })));
  await until(log.status, ({ waiting }) => waiting === 0);
}

/** The ids of a log's pages, in their order. */
export function pageIds(log) {
  return [...log.state.pages.values()].sort((a, b) => (a.order < b.order ? -1 : 1)).map(({ id }) => id);
}

function until(store, holds) {
  return new Promise((resolve) => {
    const look = () => {
      if (!holds(store.get())) return;
      stop();
      resolve();
    };
    const stop = store.subscribe(look);
    look();
  });
}
