import type { VotedMessage, VoteMessage, VotesReply } from '@doodla/core';
import { LIVE } from '@doodla/core';
import type { Line } from '@doodla/core/client';
import { Store } from '@doodla/core/client';

const NONE: VotesReply = { mine: [], counts: null };

/** How votes for the ideas of a class stand, as far as they are to be seen here. */
export class IdeaVotes {
  private readonly stores = new Map<string, Store<VotesReply>>();
  private readonly stops: (() => void)[];

  constructor(
    private readonly sitting: string,
    private readonly connection: Pick<Line, 'request' | 'on' | 'onOnline'>,
    private readonly tellProblem: (sentence: string) => void,
  ) {
    this.stops = [
      connection.on<[VotedMessage]>(LIVE.voted, (told) => {
        if (told.sitting === sitting) this.stores.get(told.page)?.patch({ counts: told.counts });
      }),
      connection.onOnline(() => {
        for (const page of this.stores.keys()) void this.send({ sitting, page });
      }),
    ];
  }

  /** The votes of a page, asked for when they are first wanted. */
  on(page: string): Store<VotesReply> {
    let store = this.stores.get(page);
    if (!store) {
      store = new Store(NONE);
      this.stores.set(page, store);
      void this.send({ sitting: this.sitting, page });
    }
    return store;
  }

  /** Gives a note one's vote, or takes it back. */
  async vote(page: string, note: string, up: boolean): Promise<void> {
    await this.send({ sitting: this.sitting, page, note, up });
  }

  close(): void {
    for (const stop of this.stops) stop();
  }

  private async send(message: VoteMessage): Promise<void> {
    try {
      this.stores.get(message.page)?.set(await this.connection.request<VotesReply>(LIVE.vote, message));
    } catch (error) {
      // How they stand is asked again with the next connection.
      if (message.note !== undefined) this.tellProblem((error as Error).message);
    }
  }
}
