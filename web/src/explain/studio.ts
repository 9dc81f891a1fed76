import type { Explanation } from '@doodla/core';
import { Store } from '@doodla/core/client';
import { nanoid } from 'nanoid';
import { listExplanations } from '../api/explanations';
import { logOf } from '../room/logOf';
import type { PageDesk } from '../room/pageDesk';
import type { Room } from '../room/room';
import { canEncodeVideo } from '../secure/secureOnly';
import { t } from '../words';
import type { MendPlace } from './mended';
import { mended } from './mended';
import { FaceCamera } from './faceCamera';
import { LiveSource } from './liveSource';
import { Microphone } from '../media/microphone';
import type { NotedChoice } from './noter';
import type { Begun, RecordingWish } from './recorder';
import { Recorder } from './recorder';
import type { KeptExplanation } from './recordedStore';
import { recordedStore } from './recordedStore';
import { Sender } from './sender';

/** A recording of which nothing was kept for so long is not going on in another window, milliseconds. */
const BROKEN_OFF_MS = 5000;

/** A recording that was broken off, such as by closing its window. */
export interface BrokenOff {
  explanation: KeptExplanation;
  /** How long it is, milliseconds. */
  length: number;
  hasVoice: boolean;
  hasFace: boolean;
}

/** Where explanations of what is open are recorded, and sent to the server. */
export class Studio {
  readonly recorder = new Store<Recorder | undefined>(undefined);
  readonly brokenOff = new Store<BrokenOff | undefined>(undefined);
  /** Counts explanations that are complete and at the server, or were tried. */
  readonly finished = new Store(0);
  /** What moves under the marks, where this browser can record that. */
  readonly live: LiveSource | undefined;
  private readonly sender: Sender;
  private timer: ReturnType<typeof setTimeout> | undefined;
  private closed = false;

  private constructor(
    private readonly desk: PageDesk,
    private readonly owner: string,
  ) {
    this.live = canEncodeVideo() ? new LiveSource(desk) : undefined;
    this.sender = new Sender(owner, desk.room.tellProblem);
    this.sender.wake();
    this.tryToLook();
  }

  /** The studio of a desk, once it is known who works there. */
  static async open(desk: PageDesk): Promise<Studio> {
    await desk.room.target.hasOpened;
    const studio = new Studio(desk, desk.room.target.actor!.id);
    studios.set(desk.room, studio);
    return studio;
  }

  /** Begins a new explanation, with a countdown. */
  async begin(name: string, wish: RecordingWish): Promise<void> {
    const begun = await this.newOne(name, wish);
    this.record(name, wish, begun).countDown();
  }

  /** Records something of an explanation anew, after a countdown; it is complete again with what is recorded. */
  async mend(
    { id, name, stops, chapters, captions }: Explanation,
    mend: MendPlace,
    wish: RecordingWish,
  ): Promise<Recorder> {
    const said = { name, parts: mend.parts, stops, chapters, captions, finished: false };
    const log = logOf(this.desk.room);
    const explanation: KeptExplanation = { id, log, owner: this.owner, mend, ...said };
    await recordedStore.putExplanation(explanation);
    const begun = { explanation, length: 0, clockAhead: await this.clockAhead() };
    const recorder = this.record(name, wish, begun);
    recorder.countDown();
    return recorder;
  }

  /** Resolves when what was recorded is at the server, or was tried. */
  sent(): Promise<void> {
    return this.sender.settled();
  }

  /** Goes on with what was broken off. Throws MicrophoneError or SourceError. */
  async goOn(choice: NotedChoice = { pointing: true, focus: true }): Promise<void> {
    const broken = this.brokenOff.get();
    if (!broken) return;
    const { explanation, length, hasVoice, hasFace } = broken;
    const face = hasFace ? await FaceCamera.open() : undefined;
    const microphone = hasVoice ? await openedWith(face) : undefined;
    this.brokenOff.set(undefined);
    const begun = { explanation, length, clockAhead: await this.clockAhead() };
    this.record(explanation.name, { ...choice, microphone, face, live: this.live }, begun).countDown();
  }

  /** Leaves what was broken off as it is: it is complete. */
  async finishBroken(): Promise<void> {
    const broken = this.brokenOff.get();
    if (!broken) return;
    const { explanation } = broken;
    const { mend } = explanation;
    const parts = mend ? mended(mend, await recordedStore.takesOf(explanation.id)) : explanation.parts;
    await recordedStore.putExplanation({ ...explanation, parts, finished: true });
    this.brokenOff.set(undefined);
    await this.sendAll();
  }

  close(): void {
    this.closed = true;
    clearTimeout(this.timer);
    this.recorder.get()?.close();
    this.sender.close();
    studios.delete(this.desk.room);
  }

  private async newOne(name: string, { perPage }: RecordingWish): Promise<Begun> {
    const { room, pageId, pages } = this.desk;
    const number = pages.get().findIndex(({ id }) => id === pageId.get()) + 1;
    const said = {
      name: perPage ? t('explain.nameOfPage', { name, number }) : name,
      parts: null,
      stops: [],
      chapters: [],
      captions: [],
      finished: false,
    };
    const explanation: KeptExplanation = { id: nanoid(), log: logOf(room), owner: this.owner, ...said };
    await recordedStore.putExplanation(explanation);
    return { explanation, length: 0, clockAhead: await this.clockAhead() };
  }

  private record(name: string, wish: RecordingWish, begun: Begun): Recorder {
    const recorder = new Recorder(this.desk, wish, begun, this.sender);
    this.recorder.set(recorder);
    const turned = () => {
      if (recorder.phase.get().is === 'recording') void this.nextPage(name, wish, recorder);
    };
    const stopTurning = wish.perPage ? this.desk.pageId.subscribe(turned) : undefined;
    recorder.phase.subscribe(() => {
      if (recorder.phase.get().is !== 'over') return;
      stopTurning?.();
      this.recorder.set(undefined);
      void this.sendAll();
    });
    return recorder;
  }

  /** Finishes what was recorded of a page, and goes on with one of the next. */
  private async nextPage(name: string, wish: RecordingWish, before: Recorder): Promise<void> {
    await before.finish(true);
    try {
      const begun = await this.newOne(name, wish);
      await this.record(name, wish, begun).goOn();
    } catch {
      wish.microphone?.close();
      wish.face?.close();
      this.desk.tellProblem(t('explain.noRoomHere'));
    }
  }

  private async sendAll(): Promise<void> {
    await this.sender.settled();
    this.finished.set(this.finished.get() + 1);
  }

  /** How far the server's clock is ahead of this device's; as the class knows it where the server cannot be asked. */
  private async clockAhead(): Promise<number> {
    const asked = Date.now();
    try {
      const { now } = await listExplanations(logOf(this.desk.room));
      return now - (asked + Date.now()) / 2;
    } catch {
      // Without a connection one can record all the same.
      return (this.desk.room.classroom?.now ?? asked) - asked;
    }
  }

  private tryToLook(): void {
    // What was recorded stays where it is, and is looked for when this is opened again.
    this.look().catch(() => undefined);
  }

  /** Looks for what was broken off here; what may be going on in another window is looked at again. */
  private async look(): Promise<void> {
    const { id } = logOf(this.desk.room);
    // A browser that keeps nothing has nothing that was broken off.
    const all = await recordedStore.explanations(this.owner).catch(() => []);
    const explanation = all.find(({ log, finished }) => log.id === id && !finished);
    if (!explanation || this.recorder.get() || this.closed) return;
    const takes = await recordedStore.takesOf(explanation.id);
    const open = takes.filter(({ over }) => !over);
    if (open.some(({ keptAt }) => Date.now() - keptAt < BROKEN_OFF_MS)) {
      this.timer = setTimeout(() => this.tryToLook(), BROKEN_OFF_MS);
      return;
    }
    for (const take of open) await recordedStore.put({ ...take, over: true }, []);
    const length = takes.reduce((sum, take) => sum + take.length, 0);
    const hasVoice = takes.some(({ voice }) => voice !== null);
    const hasFace = takes.some(({ face }) => face !== null);
    // What was begun and has nothing yet: a new one goes, one that is mended stays as it was.
    if (takes.length === 0 && explanation.mend)
      await recordedStore.putExplanation({ ...explanation, finished: true });
    else if (takes.length === 0) await recordedStore.forget(explanation.id);
    else this.brokenOff.set({ explanation, length, hasVoice, hasFace });
    this.sender.wake();
  }
}

/** Opens the microphone; where that fails, what was opened before it is let go. Throws MicrophoneError. */
async function openedWith(face: FaceCamera | undefined): Promise<Microphone> {
  try {
    return await Microphone.open();
  } catch (error) {
    face?.close();
    throw error;
  }
}

const studios = new WeakMap<Room, Studio>();

/** The studio of an opened lesson or class, if it is open. */
export function studioOf(room: Room): Studio | undefined {
  return studios.get(room);
}
