import type { LogLine } from '@doodla/core/client';
import { LiveError } from '@doodla/core/client';

type Handler = (...message: never[]) => void;

/** The server's end of a connection: what the gateway needs of a socket. */
export interface ServerEnd {
  id: string;
  data: Record<string, unknown>;
  connected: boolean;
  rooms: Set<string>;
  join(room: string): void;
  emit(event: string, message: object): void;
}

interface Waiting {
  deliver(): void;
}

let count = 0;

/**
 * A line between a browser and the server that is as slow as the test wants: nothing arrives before it is
 * delivered. Each direction keeps its order, as a WebSocket does; a cut loses what is on the way.
 */
export class SimulatedLine implements LogLine {
  private readonly handlers = new Map<string, Handler[]>();
  private readonly onlineHandlers: (() => void)[] = [];
  private up: Waiting[] = [];
  private down: Waiting[] = [];
  /** Requests whose answer is awaited. */
  private readonly asked = new Set<(error: LiveError) => void>();
  private end: ServerEnd | undefined;

  constructor(
    /** Called for each connection; answers what the browser asks. */
    private readonly connect: (end: ServerEnd) => (event: string, message: object) => Promise<unknown>,
  ) {}

  get isUp(): boolean {
    return this.end !== undefined;
  }

  get isQuiet(): boolean {
    return this.up.length === 0 && this.down.length === 0;
  }

  private answer: ((event: string, message: object) => Promise<unknown>) | undefined;

  mend(): void {
    if (this.end) return;
    const rooms = new Set<string>();
    const end: ServerEnd = {
      id: `socket-${++count}`,
      data: {},
      connected: true,
      rooms,
      join: (room) => void rooms.add(room),
      emit: (event, message) => {
        // What is told is copied at once: later changes of it must not travel along.
        const copy = structuredClone(message);
        if (this.end === end) this.down.push({ deliver: () => this.tell(event, copy) });
      },
    };
    this.end = end;
    this.answer = this.connect(end);
    for (const handler of this.onlineHandlers) handler();
  }

  cut(): void {
    if (!this.end) return;
    this.end.connected = false;
    this.end = undefined;
    this.up = [];
    this.down = [];
    for (const fail of this.asked) fail(new LiveError('unreachable', 'The line was cut.'));
    this.asked.clear();
  }

  /** Lets up to so many messages arrive at the server. */
  deliverUp(most: number): void {
    for (const message of this.up.splice(0, most)) message.deliver();
  }

  /** Lets up to so many messages arrive at the browser. */
  deliverDown(most: number): void {
    for (const message of this.down.splice(0, most)) message.deliver();
  }

  onOnline(callback: () => void): () => void {
    this.onlineHandlers.push(callback);
    if (this.end) callback();
    return () => this.onlineHandlers.splice(this.onlineHandlers.indexOf(callback), 1);
  }

  on<T extends unknown[]>(event: string, callback: (...message: T) => void): () => void {
    const handlers = [...(this.handlers.get(event) ?? []), callback as unknown as Handler];
    this.handlers.set(event, handlers);
    return () => {
      const left = (this.handlers.get(event) ?? []).filter(
        (other) => other !== (callback as unknown as Handler),
      );
      this.handlers.set(event, left);
    };
  }

  request<T>(event: string, message: object): Promise<T> {
    const { end, answer } = this;
    if (!end || !answer) return Promise.reject(new LiveError('unreachable', 'There is no connection.'));
    const copy = structuredClone(message);
    return new Promise<T>((resolve, reject) => {
      this.asked.add(reject);
      const back = (settle: () => void) => {
        if (this.end !== end) return;
        this.down.push({
          deliver: () => {
            this.asked.delete(reject);
            settle();
          },
        });
      };
      this.up.push({
        deliver: () =>
          void answer(event, copy).then(
            (reply) => back(() => resolve(structuredClone(reply) as T)),
            (error: LiveError) => back(() => reject(error)),
          ),
      });
    });
  }

  private tell(event: string, message: object): void {
    for (const handler of [...(this.handlers.get(event) ?? [])]) handler(message as never);
  }
}
