import type { ExplanationSettings } from '@doodla/core';
import { LIVE } from '@doodla/core';
import type { Line } from '@doodla/core/client';
import { Store } from '@doodla/core/client';
import { nanoid } from 'nanoid';
import type { Room } from '../room/room';
import { t } from '../words';
import { mended } from './mended';
import type { NotedDesk } from './noter';
import type { KeptExplanation, RecordedStore } from './recordedStore';
import { recordedStore } from './recordedStore';
import type { RecordingWish as TakenWish } from './runningTake';
import { RunningTake } from './runningTake';
import type { Sender } from './sender';
import { isLastOfOne } from './sender';

export type Phase =
  | { is: 'counting'; left: number }
  /** `since` is when the take began, by `performance.now`. */
  | { is: 'recording'; since: number }
  | { is: 'paused' }
  | { is: 'over' };

/** What recording needs of a desk. */
export type RecordedDesk = NotedDesk & {
  room: Pick<Room, 'sitting' | 'tellProblem'> & { connection: Pick<Line, 'request'> };
};

/** What is recorded, and how. */
export interface RecordingWish extends TakenWish {
  /** Whether each page becomes an explanation of its own. */
  perPage?: boolean;
}

/** An explanation that is recorded, from its beginning or on from where it was broken off. */
export interface Begun {
  explanation: KeptExplanation;
  /** How long its takes are already, milliseconds. */
  length: number;
  /** How far the server's clock is ahead of this device's, milliseconds. */
  clockAhead: number;
}

const COUNT = 3;
const SECOND_MS = 1000;
/** Sound comes every second, and what has come is kept with it; where it is late, all else is kept without; milliseconds. */
const SOUND_LATE_MS = 1200;
/** Everybody in a class is told so often that it is recorded. */
const LIGHT_EVERY_MS = 20_000;

/** Records an explanation: take after take, each kept in this browser second by second and sent from there. */
export class Recorder {
  readonly phase = new Store<Phase>({ is: 'paused' });
  /** How many stops it has. */
  readonly stops = new Store(0);
  private explanation: KeptExplanation;
  private take: RunningTake | undefined;
  private before: number;
  /** Whether a take is about to begin. */
  private isBeginning = false;
  private isClosed = false;
  private timer: ReturnType<typeof setTimeout> | undefined;
  private counting: ReturnType<typeof setTimeout> | undefined;
  private tail: Promise<unknown> = Promise.resolve();
  /** Takes with something that could not be kept. */
  private readonly unkept = new Set<RunningTake>();
  private litAt = -Infinity;
  private readonly stopWatching: (() => void)[] = [];

  constructor(
    private readonly desk: RecordedDesk,
    readonly wish: RecordingWish,
    private readonly begun: Begun,
    private readonly sender: Pick<Sender, 'wake'>,
    private readonly kept: Pick<RecordedStore, 'put' | 'putExplanation' | 'takesOf'> = recordedStore,
  ) {
    this.explanation = begun.explanation;
    this.before = begun.length;
    this.stops.set(this.explanation.stops.length);
    this.keepLater();
    wish.face?.onGone(() => this.take && desk.room.tellProblem(t('explain.faceGone')));
    const { hearing } = wish.microphone ?? {};
    if (hearing)
      this.stopWatching.push(
        hearing.subscribe(() => {
          if (hearing.get() === 'gone' && this.take) this.pauseFor(t('explain.microphoneGone'));
        }),
      );
  }

  get id(): string {
    return this.explanation.id;
  }

  /** How long it is by now, milliseconds. */
  get length(): number {
    const phase = this.phase.get();
    return this.before + (phase.is === 'recording' ? performance.now() - phase.since : 0);
  }

  /** Counts down, then records. */
  countDown(left = COUNT): void {
    if (left === 0) {
      void this.goOn();
      return;
    }
    this.phase.set({ is: 'counting', left });
    this.counting = setTimeout(() => this.countDown(left - 1), SECOND_MS);
  }

  /** Resolves when it records, after the countdown; rejects with a sentence where it does not. */
  isRecording(): Promise<void> {
    return new Promise((resolve, reject) => {
      const look = () => {
        const { is } = this.phase.get();
        if (is === 'counting') return;
        stop();
        if (is === 'recording') resolve();
        else reject(new Error(t('explain.soundCannotBeRecorded')));
      };
      const stop = this.phase.subscribe(look);
    });
  }

  /** Goes on at once, in a take of its own. */
  async goOn(): Promise<void> {
    clearTimeout(this.counting);
    if (this.take || this.isBeginning || this.isClosed) return;
    this.isBeginning = true;
    try {
      const take = await this.begin();
      // It may have been let go of meanwhile.
      if (this.isClosed) return void (await take.stop());
      this.take = take;
      this.phase.set({ is: 'recording', since: take.since });
      this.light(true);
    } catch {
      this.pauseFor(t('explain.soundCannotBeRecorded'));
    } finally {
      this.isBeginning = false;
    }
    this.keep();
  }

  /** Ends the take that is being recorded; resolves when all of it is kept. */
  async pause(): Promise<void> {
    clearTimeout(this.counting);
    const { take } = this;
    this.take = undefined;
    this.phase.set({ is: 'paused' });
    this.light(false);
    if (!take) return;
    this.before += take.time;
    await take.stop();
    this.store(take);
    await this.tail;
  }

  /** Puts a stop here: playing waits at it. */
  putStop(text = ''): void {
    const { take } = this;
    if (!take) return;
    const from = Math.round(take.time);
    const stop = { id: nanoid(), take: take.id, from, text, seconds: null };
    this.say({ stops: [...this.explanation.stops, stop] });
    this.stops.set(this.explanation.stops.length);
  }

  /**
   * Ends the recording: it is complete. Not while something of it cannot be kept, which is told. Another one may go on with its
   * microphone.
   */
  async finish(handsOver = false): Promise<void> {
    await this.pause();
    if (this.unkept.size > 0) return this.desk.room.tellProblem(t('explain.noRoomHere'));
    const { mend } = this.explanation;
    const takes = mend ? await this.kept.takesOf(this.id) : [];
    this.say({ finished: true, ...(mend && { parts: mended(mend, takes) }) });
    await this.tail;
    this.close(handsOver);
  }

  /** Lets go; what was recorded stays, to go on with. */
  close(handsOver = false): void {
    this.isClosed = true;
    void this.pause();
    clearTimeout(this.timer);
    for (const stop of this.stopWatching) stop();
    if (!handsOver) this.wish.microphone?.close();
    if (!handsOver) this.wish.face?.close();
    this.phase.set({ is: 'over' });
  }

  private begin(): Promise<RunningTake> {
    const { desk, wish, begun } = this;
    return RunningTake.begin({
      desk,
      wish,
      explanation: this.id,
      clockAhead: begun.clockAhead,
      onNews: () => this.keep(),
      onFailed: (what) => {
        if (what === 'sound') this.pauseFor(t('explain.soundCannotBeRecorded'));
        else desk.room.tellProblem(t('explain.pictureNotRecorded'));
      },
      onBetterAnew: (take) => void this.beginAnew(take),
    });
  }

  /** Goes on in another take, where sound and drawing are in step again; what is recorded in one place stays in one. */
  private async beginAnew(take: RunningTake): Promise<void> {
    if (this.take !== take || this.explanation.mend) return;
    await this.pause();
    await this.goOn();
  }

  /** Keeps what has come within the last second, and what could not be kept before. */
  private keep(): void {
    const { take } = this;
    this.keepLater();
    for (const one of this.unkept) this.store(one);
    if (!take) return;
    take.keepUp();
    this.store(take);
    if (performance.now() - this.litAt > LIGHT_EVERY_MS) this.light(true);
  }

  private keepLater(): void {
    clearTimeout(this.timer);
    if (this.isClosed) return;
    this.timer = setTimeout(() => this.keep(), this.take?.kept.voice ? SOUND_LATE_MS : SECOND_MS);
  }

  /** What cannot be kept stays here, and is tried again. */
  private store(take: RunningTake): void {
    this.enqueue(async () => {
      const pieces = take.waiting.splice(0);
      try {
        await this.kept.put({ ...take.kept, keptAt: Date.now() }, pieces);
        this.unkept.delete(take);
        if (take.kept.over || pieces.some(isLastOfOne)) this.sender.wake();
      } catch (error) {
        take.waiting.unshift(...pieces);
        this.unkept.add(take);
        throw error;
      }
    });
  }

  private say(set: Partial<ExplanationSettings>): void {
    this.explanation = { ...this.explanation, ...set };
    const { explanation } = this;
    this.enqueue(async () => {
      await this.kept.putExplanation(explanation);
      this.sender.wake();
    });
  }

  private enqueue(work: () => Promise<void>): void {
    this.tail = this.tail.then(work).catch(() => this.pauseFor(t('explain.noRoomHere')));
  }

  private pauseFor(reason: string): void {
    if (this.phase.get().is !== 'paused') this.desk.room.tellProblem(reason);
    void this.pause();
  }

  /** Tells the class that it is recorded, or no more. A sign that does not arrive is given again in a moment. */
  private light(on: boolean): void {
    const { sitting, connection } = this.desk.room;
    this.litAt = on ? performance.now() : -Infinity;
    if (sitting === undefined) return;
    connection.request(LIVE.recording, { sitting, on }).catch(() => (this.litAt = -Infinity));
  }
}
