import { Logger } from '@nestjs/common';
import { LRUCache } from 'lru-cache';
import { createHash, randomBytes, randomUUID, timingSafeEqual } from 'node:crypto';
import { setTimeout as sleep } from 'node:timers/promises';
import { logFailure } from '../http/failures.js';
import type { Holder, LeaseTable, Peer } from '../storage/leaseTable.js';
import { ElsewhereError, Leases } from './leases.js';
import { askToHandOver, isReached } from './peerCalls.js';
import { STEP } from './step.js';

/** Whoever says nothing for so long has nothing in hand any more, milliseconds. */
export const GONE_MS = 3000;
const RENEW_MS = 1000;
/** Who cannot be reached either has nothing in hand once it has said nothing for so long. */
const SILENT_MS = 1500;
/** How long a lesson is waited for that another process has, which cannot be reached. */
const PATIENCE_MS = 6000;
/** What nobody has asked for so long, and nobody is connected for, is given out of hand. */
const UNUSED_MS = 3000;
const DRAW_AGAIN_MS = 3000;
const NEEDED_MS = 10_000;
const LOOK_AGAIN_MS = 200;
const MOST_KNOWN = 50_000;

interface Held {
  fence: number;
  /** When it was taken, and used last, by this process's own clock. */
  takenAt: number;
  usedAt: number;
}

/** What this process has in hand, of what several share: leases in the database, renewed all together every second. */
export class SharedLeases extends Leases {
  readonly id = randomUUID();
  private readonly logger = new Logger('Processes');
  private readonly secret = randomBytes(24).toString('base64url');
  private readonly held = new Map<string, Held>();
  /** Those that are being handed over. */
  private readonly leaves = new Set<string>();
  private readonly taking = new Map<string, Promise<number>>();
  /** Lessons by log; that of a class never changes. */
  private readonly lessons = new LRUCache<string, string>({ max: MOST_KNOWN });
  /** What was asked for a moment ago is not asked for with every connection. */
  private readonly drawn = new LRUCache<string, true>({ max: MOST_KNOWN, ttl: DRAW_AGAIN_MS });
  /** What was taken over for something that is being done; whoever was sent away by that does not draw it back meanwhile. */
  private readonly needed = new LRUCache<string, true>({ max: MOST_KNOWN, ttl: NEEDED_MS });
  private readonly gone: ((peers: ReadonlySet<string>) => void)[] = [];
  /** When it last began to say, with success, that it is there; by this process's own clock, which no one can set. */
  private renewedAt = -Infinity;
  private self: Peer | undefined;
  private releasing: Promise<void> | undefined;
  private timer: NodeJS.Timeout | undefined;
  /** Takes nothing more in hand. */
  private ends = false;
  private ended = false;

  constructor(private readonly table: LeaseTable) {
    super();
  }

  /** Begins to be there, for others to be found at an address. Throws where a process of a far version is there. */
  async begin(address: string): Promise<void> {
    const others = (await this.table.present()).filter(({ step }) => Math.abs(step - STEP) > 1);
    if (others.length > 0)
      throw new Error(`A process of step ${others[0]!.step} is running; this is step ${STEP}.`);
    this.self = { id: this.id, address, secret: this.secret };
    await this.renew();
    this.plan();
  }

  /** Calls back, about once a second, with who is there. */
  onPresent(listener: (peers: ReadonlySet<string>) => void): void {
    this.gone.push(listener);
  }

  /** Whether this process was heard lately, so that nobody else can have what it has in hand. */
  get isPresent(): boolean {
    return performance.now() - this.renewedAt < GONE_MS;
  }

  /** Where the processes are that are there, this one among them. */
  async addresses(): Promise<string[]> {
    return (await this.table.present()).map(({ address }) => address).sort();
  }

  /** How many lessons are in hand. */
  get count(): number {
    return this.held.size;
  }

  fenceOf(log: string): number | undefined {
    if (!this.isPresent) return undefined;
    const held = this.held.get(this.lessonOf(log));
    if (held) held.usedAt = performance.now();
    return held?.fence;
  }

  override isInUse(lesson: string): boolean {
    return this.needed.has(lesson) || super.isInUse(lesson);
  }

  /** That of a class which has not been looked up is not known. */
  lessonOf(log: string): string {
    return this.lessons.get(log) ?? log;
  }

  expect(log: string, lesson: string): void {
    this.lessons.set(log, lesson);
  }

  async take(log: string): Promise<number> {
    const lesson = await this.lookUp(log);
    const fence = this.fenceOf(lesson);
    if (fence !== undefined) return fence;
    let taking = this.taking.get(lesson);
    if (!taking) {
      taking = this.takeNow(lesson).finally(() => this.taking.delete(lesson));
      this.taking.set(lesson, taking);
    }
    return taking;
  }

  async takeOver(log: string): Promise<number> {
    const lesson = await this.lookUp(log);
    this.needed.set(lesson, true);
    try {
      return await this.take(lesson);
    } catch (error) {
      if (!(error instanceof ElsewhereError) || this.ends) throw error;
      const holder = await this.holderOf(lesson);
      if (holder) await askToHandOver(holder, { lesson, to: this.id });
      return this.take(lesson);
    }
  }

  /**
   * Where a request for a log belongs: at a peer, or here, where it is taken in hand if `takes`. Waits a little for a peer that
   * cannot be reached. Who comes to stay (`attracts`) draws a lesson here for which nobody is connected there. Throws ElsewhereError
   * where no place is found.
   */
  async placeOf(log: string, takes: boolean, attracts = false): Promise<Peer | undefined> {
    const lesson = await this.lookUp(log);
    for (
      const until = performance.now() + PATIENCE_MS;
      performance.now() < until;
      await sleep(LOOK_AGAIN_MS)
    ) {
      if (this.isHeld(lesson)) return undefined;
      const holder = await this.holderOf(lesson);
      if (holder) {
        if (await isReached(holder)) {
          if (attracts && !this.ends && (await this.draw(holder, lesson))) return undefined;
          return holder;
        }
        // It may be there, but out of reach of this one: then the class goes on where it is.
        if (holder.silentMs < SILENT_MS) continue;
      }
      if (this.ends) return this.another();
      // Anybody may ask for what is not there, without a trace of it.
      if (!takes || !(await this.table.isKnown(lesson))) return undefined;
      if ((await this.tryToTake(lesson, SILENT_MS)) !== undefined) return undefined;
    }
    throw new ElsewhereError(lesson);
  }

  /** Takes a lesson over from a peer with which nobody is connected for it. Returns whether it is here now. */
  private async draw(holder: Peer, lesson: string): Promise<boolean> {
    if (this.drawn.has(lesson)) return false;
    this.drawn.set(lesson, true);
    try {
      await askToHandOver(holder, { lesson, to: this.id, ifUnused: true });
      await this.take(lesson);
      return true;
    } catch (error) {
      if (error instanceof ElsewhereError) return false;
      throw error;
    }
  }

  /**
   * Hands a lesson over: to a process that waits for it, so that nobody who comes back from here is faster, or to whoever asks for it
   * next.
   */
  async handOver(lesson: string, to: string | null = null): Promise<void> {
    if (!this.held.delete(lesson)) return;
    this.leaves.add(lesson);
    try {
      await this.tellLeaving(lesson);
      await this.table.release(lesson, this.id, to);
    } finally {
      this.leaves.delete(lesson);
      this.tellLeft(lesson);
    }
  }

  /**
   * Gives out of hand what is not in use: a lesson belongs where people are connected for it, and not where it was asked for by the
   * way.
   */
  private async releaseUnused(): Promise<void> {
    const before = performance.now() - UNUSED_MS;
    for (const [lesson, { usedAt }] of this.held)
      if (usedAt < before && !this.isInUse(lesson)) await this.handOver(lesson);
  }

  /** What comes for a lesson that nobody has in hand goes to another process from now on. */
  takeNothingMore(): void {
    this.ends = true;
  }

  /** Hands everything over, one lesson after the other, over so long. */
  async drain(ms: number): Promise<void> {
    const lessons = [...this.held.keys()];
    for (const lesson of lessons) {
      await this.handOver(lesson);
      await sleep(ms / lessons.length);
    }
  }

  async end(): Promise<void> {
    this.ends = this.ended = true;
    clearTimeout(this.timer);
    if (this.self) await this.table.leave(this.id);
    await this.table.close();
  }

  /** Whether a secret is the one by which peers pass requests on to this process. */
  isOwn(secret: string): boolean {
    const [given, own] = [secret, this.secret].map((text) => createHash('sha256').update(text).digest());
    return timingSafeEqual(given!, own!);
  }

  private async lookUp(log: string): Promise<string> {
    const known = this.lessons.get(log);
    if (known !== undefined || this.held.has(log)) return known ?? log;
    const lesson = (await this.table.lessonOf(log)) ?? log;
    // What is no class may become one, so that is not kept.
    if (lesson !== log) this.lessons.set(log, lesson);
    return lesson;
  }

  private async holderOf(lesson: string): Promise<Holder | undefined> {
    const holder = await this.table.holderOf(lesson);
    return holder?.id === this.id ? undefined : holder;
  }

  private async another(): Promise<Peer> {
    const peer = (await this.table.present()).find(({ id }) => id !== this.id);
    if (!peer) throw new ElsewhereError('no other process');
    return peer;
  }

  private async takeNow(lesson: string): Promise<number> {
    const fence = this.ends || this.leaves.has(lesson) ? undefined : await this.tryToTake(lesson);
    if (fence === undefined) throw new ElsewhereError(lesson);
    return fence;
  }

  private async tryToTake(lesson: string, goneMs?: number): Promise<number | undefined> {
    if (!this.isPresent) await this.renew();
    const fence = await this.table.take(lesson, this.id, goneMs);
    const now = performance.now();
    if (fence !== undefined) this.held.set(lesson, { fence, takenAt: now, usedAt: now });
    return fence;
  }

  private plan(): void {
    if (this.ended) return;
    this.timer = setTimeout(() => {
      this.renew()
        .catch((error: unknown) =>
          logFailure(this.logger, 'The database could not be told that this process is there', error),
        )
        .finally(() => this.plan());
    }, RENEW_MS).unref();
  }

  /** Says that this process is there, and looks who else is, and whether somebody has taken what it had. */
  private async renew(): Promise<void> {
    const began = performance.now();
    await this.table.renew(this.self!, STEP);
    this.renewedAt = began;
    const there = await this.table.heldBy(this.id);
    for (const [lesson, { fence, takenAt }] of this.held)
      if (takenAt < began && there.get(lesson) !== fence) this.lose(lesson);
    const present = new Set((await this.table.present()).map(({ id }) => id));
    for (const listener of this.gone) listener(present);
    this.releasing ??= this.releaseUnused()
      .catch((error: unknown) => logFailure(this.logger, 'A lesson could not be given out of hand', error))
      .finally(() => (this.releasing = undefined));
  }

  private lose(lesson: string): void {
    this.held.delete(lesson);
    this.tellLeaving(lesson)
      .catch((error: unknown) =>
        logFailure(this.logger, 'What another process has taken could not be put away', error),
      )
      .finally(() => this.tellLeft(lesson));
  }
}
