import type { ChatMessage, ChatReply, SaidMessage, SayMessage, UnsayMessage } from '@doodla/core';
import { LIVE } from '@doodla/core';
import type { Line } from '@doodla/core/client';
import { LiveError, Store } from '@doodla/core/client';
import { nanoid } from 'nanoid';

const PAUSE_MS = 1000;

/** What was said here and has not arrived yet. */
export interface Unsent {
  id: string;
  words: string;
  /** Why it was not taken, if it was not. */
  refused?: string;
}

/** What a class says to each other, as this browser knows it. What is said without a connection is kept, and sent later. */
export class Chat {
  /** Oldest first. */
  readonly messages = new Store<readonly ChatMessage[]>([]);
  readonly unsent: Store<readonly Unsent[]>;
  /** How many have come since they were last looked at. */
  readonly unread = new Store(0);
  /** Whether they are looked at. */
  readonly open = new Store(false);
  private readonly key: string;
  private sending = false;
  private readonly stops: (() => void)[];

  /** `owner` tells those apart who use this browser one after the other: nobody sends another's words. */
  constructor(
    private readonly sitting: string,
    owner: string,
    private readonly connection: Pick<Line, 'request' | 'on' | 'onOnline'>,
    private readonly tellProblem: (sentence: string) => void,
  ) {
    this.key = `doodla.chat.${sitting}.${owner}`;
    this.unsent = new Store(kept(this.key));
    this.stops = [
      connection.on<[SaidMessage]>(LIVE.said, (told) => {
        if (told.sitting === sitting) this.hear(told.message);
      }),
      connection.onOnline(() => {
        void this.refresh();
        void this.send();
      }),
      this.open.subscribe(() => this.unread.set(0)),
    ];
  }

  say(words: string): void {
    this.keep([...this.unsent.get(), { id: nanoid(), words }]);
    void this.send();
  }

  /** Sends again what was not taken. */
  sayAgain(id: string): void {
    this.keep(this.unsent.get().map((one) => (one.id === id ? { id, words: one.words } : one)));
    void this.send();
  }

  forget(id: string): void {
    this.keep(this.unsent.get().filter((one) => one.id !== id));
  }

  /** Takes a message away, or puts it back. */
  async setRemoved(id: string, removed: boolean): Promise<void> {
    const message: UnsayMessage = { sitting: this.sitting, id, removed };
    try {
      await this.connection.request(LIVE.unsay, message);
    } catch (error) {
      this.tellProblem((error as Error).message);
    }
  }

  /** Asks for the last messages anew. */
  async refresh(): Promise<void> {
    try {
      const { messages } = await this.connection.request<ChatReply>(LIVE.chat, { sitting: this.sitting });
      const [first] = messages;
      const before = first ? this.messages.get().filter(({ at }) => at < first.at) : [];
      this.messages.set([...before, ...messages]);
    } catch {
      // Asked again with the next connection.
    }
  }

  close(): void {
    for (const stop of this.stops) stop();
  }

  private hear(message: ChatMessage): void {
    const isNew = this.take(message);
    if (isNew && !message.removed && !this.open.get()) this.unread.set(this.unread.get() + 1);
  }

  /** Returns whether it is new. */
  private take(message: ChatMessage): boolean {
    const known = this.messages.get();
    const at = known.findIndex(({ id }) => id === message.id);
    const isOwn = this.unsent.get().some(({ id }) => id === message.id);
    this.messages.set(at < 0 ? [...known, message] : known.with(at, message));
    // One hears of one's own before the answer comes.
    if (isOwn) this.forget(message.id);
    return at < 0 && !isOwn;
  }

  /** One after the other, so that they stay in their order. */
  private async send(): Promise<void> {
    if (this.sending) return;
    this.sending = true;
    try {
      for (;;) {
        const next = this.unsent.get().find(({ refused }) => refused === undefined);
        if (!next) return;
        const message: SayMessage = { sitting: this.sitting, id: next.id, words: next.words };
        this.take(await this.connection.request<ChatMessage>(LIVE.say, message));
      }
    } catch (error) {
      if (!(error instanceof LiveError) || error.code === 'unreachable') return;
      if (error.code !== 'too-fast') this.refuse(error.message);
      else await pause();
    } finally {
      this.sending = false;
    }
    await this.send();
  }

  private refuse(reason: string): void {
    const first = this.unsent.get().find(({ refused }) => refused === undefined);
    this.keep(this.unsent.get().map((one) => (one === first ? { ...one, refused: reason } : one)));
  }

  private keep(unsent: readonly Unsent[]): void {
    this.unsent.set(unsent);
    if (unsent.length > 0) localStorage.setItem(this.key, JSON.stringify(unsent));
    else localStorage.removeItem(this.key);
  }
}

/** Much that was said without a connection goes as fast as the server takes it. */
const pause = () => new Promise((resolve) => setTimeout(resolve, PAUSE_MS));

function kept(key: string): readonly Unsent[] {
  try {
    return JSON.parse(localStorage.getItem(key) ?? '[]') as Unsent[];
  } catch {
    // Somebody has changed it by hand.
    return [];
  }
}
