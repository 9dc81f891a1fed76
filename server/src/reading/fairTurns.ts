/** Tells how many wait before one who waits; 0 when the turn has come. */
export type TellWaiting = (before: number) => void;

export interface TurnOptions {
  /** Whose turn it is: a person, or something that is done for nobody in particular. */
  owner: string;
  onWaiting?: TellWaiting | undefined;
  signal?: AbortSignal | undefined;
}

/** How many wait for a turn, anywhere in this process. */
let waiting = 0;
export const waitingTurns = (): number => waiting;

interface Waiting {
  owner: string;
  begin: () => void;
  tell: TellWaiting;
}

/**
 * Turns at something that only some can use at the same time. Nobody has more than a third of the places, so that one
 * person's files, however many and however heavy, leave room for the next one's; whoever has the fewest goes first.
 */
export class FairTurns {
  private readonly running = new Map<string, number>();
  private readonly queue: Waiting[] = [];
  private readonly perOwner: number;
  private free: number;

  constructor(places: number) {
    this.free = places;
    this.perOwner = Math.max(1, Math.floor(places / 3));
  }

  /** Does something when its turn comes. Rejects as it does, or with the signal's reason while it waits. */
  async run<Result>({ owner, onWaiting, signal }: TurnOptions, work: () => Promise<Result>): Promise<Result> {
    await this.turn(owner, onWaiting ?? (() => undefined), signal);
    try {
      return await work();
    } finally {
      this.count(owner, -1);
      this.next();
    }
  }

  private async turn(owner: string, tell: TellWaiting, signal: AbortSignal | undefined): Promise<void> {
    signal?.throwIfAborted();
    waiting += 1;
    const begun = new Promise<void>((resolve, reject) => {
      const giveUp = () => {
        this.queue.splice(this.queue.indexOf(entry), 1);
        this.tellAll();
        reject(signal!.reason as Error);
      };
      const begin = () => {
        signal?.removeEventListener('abort', giveUp);
        entry.tell(0);
        resolve();
      };
      const entry: Waiting = { owner, begin, tell: ifNew(tell) };
      this.queue.push(entry);
      signal?.addEventListener('abort', giveUp);
      this.next();
    });
    await begun.finally(() => (waiting -= 1));
  }

  private next(): void {
    for (let chosen = this.choose(); chosen; chosen = this.choose()) {
      this.queue.splice(this.queue.indexOf(chosen), 1);
      this.count(chosen.owner, 1);
      chosen.begin();
    }
    this.tellAll();
  }

  private choose(): Waiting | undefined {
    if (this.free === 0) return undefined;
    const has = ({ owner }: Waiting) => this.running.get(owner) ?? 0;
    const may = this.queue.filter((waiting) => has(waiting) < this.perOwner);
    const fewest = Math.min(...may.map(has));
    return may.find((waiting) => has(waiting) === fewest);
  }

  private count(owner: string, more: 1 | -1): void {
    this.free -= more;
    const now = (this.running.get(owner) ?? 0) + more;
    if (now > 0) this.running.set(owner, now);
    else this.running.delete(owner);
  }

  private tellAll(): void {
    this.queue.forEach(({ tell }, i) => tell(i + 1));
  }
}

/** Who does not wait is told nothing, and nobody the same twice. */
function ifNew(tell: TellWaiting): TellWaiting {
  let told = 0;
  return (before) => {
    if (before !== told) tell((told = before));
  };
}
