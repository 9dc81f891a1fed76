import type { ExplanationSettings, LogRef, Take } from '@doodla/core';
import { TRACKS } from '@doodla/core';
import type { Piece } from '../api/explanations';
import { putExplanation, putPiece, putTake } from '../api/explanations';
import { RequestError } from '../api/http';
import type { KeptExplanation, KeptPiece, KeptTake, RecordedStore } from './recordedStore';
import { recordedStore } from './recordedStore';
import { joined } from './piecesOf';

/** So many pieces as they are kept here go to the server as one, which makes some seconds of sound one file there. */
export const KEPT_IN_ONE = 5;
const RETRY_MS = 4000;

/** Whether there is more to be sent once a piece of a take that goes on has come. */
export const isLastOfOne = ({ number }: Pick<KeptPiece, 'number'>): boolean =>
  number % KEPT_IN_ONE === KEPT_IN_ONE - 1;

/** What the server takes. */
export interface Receiver {
  putExplanation(log: LogRef, id: string, said: ExplanationSettings): Promise<void>;
  putTake(log: LogRef, explanation: string, take: Take): Promise<void>;
  putPiece(log: LogRef, piece: Piece): Promise<void>;
}

type Kept = Pick<RecordedStore, 'explanations' | 'takesOf' | 'pieces' | 'removePieces' | 'forget'>;

/** Sends what was recorded here to the server, in order, now or when it can be reached again. */
export class Sender {
  private busy = false;
  private again = false;
  private closed = false;
  private timer: ReturnType<typeof setTimeout> | undefined;
  private readonly sent = new Map<string, string>();
  private waiting: (() => void)[] = [];

  /** `onProblem` is told what the server does not take, in a sentence, once for each thing. */
  constructor(
    private readonly owner: string,
    private readonly onProblem: (sentence: string) => void,
    private readonly server: Receiver = { putExplanation, putTake, putPiece },
    private readonly kept: Kept = recordedStore,
  ) {}

  /** Sends what there is. */
  wake(): void {
    if (this.closed) return;
    if (this.busy) this.again = true;
    else void this.run();
  }

  /** Resolves when all that can be sent by now has been, or was tried. */
  settled(): Promise<void> {
    return new Promise((resolve) => {
      this.waiting.push(resolve);
      this.wake();
    });
  }

  close(): void {
    this.closed = true;
    clearTimeout(this.timer);
  }

  private async run(): Promise<void> {
    this.busy = true;
    clearTimeout(this.timer);
    const waiting = this.waiting;
    this.waiting = [];
    try {
      // What is refused of one is no reason to keep another back.
      for (const one of await this.kept.explanations(this.owner))
        await this.send(one).catch((error: Error) => this.postpone(error));
    } catch (error) {
      this.postpone(error as Error);
    }
    this.busy = false;
    for (const done of waiting) done();
    if (this.again || this.waiting.length > 0) {
      this.again = false;
      this.wake();
    }
  }

  /** Without a connection it is tried again in a while; what the server refuses stays here, and is told. */
  private postpone(error: Error): void {
    const isRefused = error instanceof RequestError && error.status >= 400 && error.status < 500;
    if (isRefused || !(error instanceof RequestError)) this.tellOnce(error.message);
    clearTimeout(this.timer);
    if (!this.closed) this.timer = setTimeout(() => this.wake(), isRefused ? 10 * RETRY_MS : RETRY_MS);
  }

  private tellOnce(sentence: string): void {
    if (this.sent.get('problem') === sentence) return;
    this.sent.set('problem', sentence);
    this.onProblem(sentence);
  }

  private async send(explanation: KeptExplanation): Promise<void> {
    const { id, log } = explanation;
    const said = saidOf(explanation);
    const takes = await this.kept.takesOf(id);
    // Those who watch see it once all of it is there.
    const whole = { ...said, finished: false };
    await this.once(id, whole, () => this.server.putExplanation(log, id, whole));
    for (const take of takes) await this.sendTake(log, take);
    if (!said.finished) return;
    await this.server.putExplanation(log, id, said);
    await this.kept.forget(id);
  }

  private async sendTake(log: LogRef, kept: KeptTake): Promise<void> {
    const { explanation, over, id, startedAt, length, voice, video, face } = kept;
    const take: Take = { id, startedAt, length, voice, video, face };
    // Sound without the piece before it may be of no use, so pieces go one after the other.
    if (!this.sent.has(take.id))
      await this.once(take.id, take, () => this.server.putTake(log, explanation, take));
    for (const track of TRACKS) {
      for (;;) {
        const pieces = await this.kept.pieces(take.id, track, KEPT_IN_ONE);
        const [first] = pieces;
        if (!first) break;
        const number = Math.floor(first.number / KEPT_IN_ONE);
        const group = pieces.filter((piece) => Math.floor(piece.number / KEPT_IN_ONE) === number);
        if (!over && !isLastOfOne(group.at(-1)!)) break;
        const bytes = joined(group.map((piece) => piece.bytes));
        await this.server.putPiece(log, { explanation, take: take.id, track, number, bytes });
        await this.kept.removePieces(group);
        await this.once(take.id, take, () => this.server.putTake(log, explanation, take));
      }
    }
    if (over) await this.once(take.id, take, () => this.server.putTake(log, explanation, take));
  }

  /** Says something if it is not what was said last. */
  private async once(id: string, what: object, say: () => Promise<void>): Promise<void> {
    const written = JSON.stringify(what);
    if (this.sent.get(id) === written) return;
    await say();
    this.sent.set(id, written);
  }
}

/** What the server is told of an explanation. */
function saidOf({ name, parts, stops, chapters, captions, finished }: KeptExplanation): ExplanationSettings {
  return { name, parts, stops, chapters, captions, finished };
}
