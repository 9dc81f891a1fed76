import type { ExplanationSettings, Track, VideoTrack } from '@doodla/core';
import { LIVE, MOST_PIECE_BYTES, VIDEO_TRACKS } from '@doodla/core';
import type { Line } from '@doodla/core/client';
import { Store } from '@doodla/core/client';
import { writeNoted } from '@doodla/core/explain';
import { nanoid } from 'nanoid';
import type { Room } from '../room/room';
import { t } from '../words';
import type { FaceCamera } from './faceCamera';
import type { LiveSource } from './liveSource';
import { mended } from './mended';
import type { Microphone } from './microphone';
import { Mixer } from './mixer';
import type { NotedChoice, NotedDesk } from './noter';
import { Noter } from './noter';
import { PictureTrack } from './pictureTrack';
import type { KeptExplanation, KeptPiece, KeptTake, RecordedStore } from './recordedStore';
import { recordedStore } from './recordedStore';
import type { VideoWriter } from '../media/videoWriter';
import type { Sender } from './sender';
import { KEPT_IN_ONE } from './sender';
import { piecesOf } from './piecesOf';
import type { SoundRecorder } from './soundRecorder';
import { recordSound } from './soundRecorder';

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
export interface RecordingWish extends NotedChoice {
  microphone: Microphone | undefined;
  /** What moves under the marks, with its sound. */
  live?: LiveSource | undefined;
  /** The camera that sees whoever explains. */
  face?: FaceCamera | undefined;
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
/** Sound that comes so late was not heard all the while, as on a machine that slept; milliseconds. */
const STOOD_MS = 8000;
/** Everybody in a class is told so often that it is recorded. */
const LIGHT_EVERY_MS = 20_000;

/** A page's shape is given back to it when it is drawn, so this is the same for all. Bits per second are from trials. */
const LIVE_FORM = { width: 1280, height: 720, bits: 1e6 };
const FACE_FORM = { width: 320, height: 240, bits: 150_000 };
/** Several of these are one piece for the server. */
const MOST_KEPT_BYTES = Math.floor(MOST_PIECE_BYTES / KEPT_IN_ONE);

/** A take that is being recorded. */
interface Running {
  kept: KeptTake;
  since: number;
  noter: Noter;
  sound: SoundRecorder | undefined;
  mixer: Mixer | undefined;
  pictures: ReadonlyMap<VideoTrack, PictureTrack>;
  /** Pieces that are not kept yet, and how many there have been of each track. */
  waiting: KeptPiece[];
  counts: Record<Track, number>;
}

/** Records an explanation: take after take, each kept in this browser second by second and sent from there. */
export class Recorder {
  readonly phase = new Store<Phase>({ is: 'paused' });
  /** How many stops it has. */
  readonly stops = new Store(0);
  private explanation: KeptExplanation;
  private take: Running | undefined;
  private before: number;
  /** Whether a take is about to begin. */
  private isBeginning = false;
  private isClosed = false;
  private readonly timer: ReturnType<typeof setInterval>;
  private counting: ReturnType<typeof setTimeout> | undefined;
  private tail: Promise<unknown> = Promise.resolve();
  /** Takes with something that could not be kept. */
  private readonly unkept = new Set<Running>();
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
    this.timer = setInterval(() => this.keep(), SECOND_MS);
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
      if (this.isClosed) return void take.sound?.stop();
      this.take = take;
      this.phase.set({ is: 'recording', since: this.take.since });
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
    const length = performance.now() - take.since;
    this.before += length;
    take.noter.close();
    await Promise.all([take.sound?.stop(), ...[...take.pictures.values()].map((one) => one.stop())]);
    take.mixer?.close();
    this.gather(take);
    take.kept = { ...take.kept, length: Math.round(length), over: true };
    this.store(take);
    await this.tail;
  }

  /** Puts a stop here: playing waits at it. */
  putStop(text = ''): void {
    const { take } = this;
    if (!take) return;
    const from = Math.round(performance.now() - take.since);
    const stop = { id: nanoid(), take: take.kept.id, from, text, seconds: null };
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
    clearInterval(this.timer);
    for (const stop of this.stopWatching) stop();
    if (!handsOver) this.wish.microphone?.close();
    if (!handsOver) this.wish.face?.close();
    this.phase.set({ is: 'over' });
  }

  private async begin(): Promise<Running> {
    const { live } = this.wish;
    const id = nanoid();
    const waiting: KeptPiece[] = [];
    const counts = { notes: 0, voice: 0, video: 0, face: 0 };
    let heardAt = performance.now();
    const mixer = this.mixerOf();
    const stream = mixer?.stream ?? this.wish.microphone?.stream;
    const sound =
      stream &&
      (await recordSound(
        stream,
        (bytes) => {
          waiting.push({ take: id, track: 'voice', number: counts.voice++, bytes });
          // Sound comes also where a browser holds back timers of a tab that is not in front.
          this.keep();
          const stood = performance.now() - heardAt;
          heardAt += stood;
          if (stood > STOOD_MS) void this.beginAnew(id);
        },
        () => this.pauseFor(t('explain.soundCannotBeRecorded')),
      ));
    const since = sound?.startedAt ?? performance.now();
    const time = () => performance.now() - since;
    const noter = new Noter(this.desk, this.wish, time, live);
    const startedAt = Math.round(Date.now() + this.begun.clockAhead - time());
    const tracks = { voice: sound?.type ?? null, video: null, face: null };
    const take = { id, explanation: this.id, startedAt, length: 0, ...tracks };
    const kept = { ...take, keptAt: Date.now(), over: false };
    return { kept, since, noter, sound, mixer, pictures: this.picturesOf(time), waiting, counts };
  }

  /** What is heard beside a voice is mixed to it; where nothing can be heard there is no sound. */
  private mixerOf(): Mixer | undefined {
    const { microphone, live } = this.wish;
    if (!live || (!microphone && live.sounds.length === 0)) return undefined;
    const mixer = new Mixer();
    mixer.hear(this.soundsNow());
    return mixer;
  }

  private soundsNow(): MediaStreamTrack[] {
    const { microphone, live } = this.wish;
    return [...(microphone?.stream.getAudioTracks() ?? []), ...(live?.sounds ?? [])];
  }

  private picturesOf(time: () => number): ReadonlyMap<VideoTrack, PictureTrack> {
    const { live, face } = this.wish;
    const begin = async (...args: Parameters<typeof VideoWriter.begin>) => {
      const { VideoWriter: Made } = await import('../media/videoWriter');
      return Made.begin(...args);
    };
    const onFailed = () => this.desk.room.tellProblem(t('explain.pictureNotRecorded'));
    const pictures = new Map<VideoTrack, PictureTrack>();
    if (live) pictures.set('video', new PictureTrack(live, LIVE_FORM, { time, begin, onFailed }));
    if (face) pictures.set('face', new PictureTrack(face, FACE_FORM, { time, begin, onFailed }));
    return pictures;
  }

  /** Goes on in another take, where sound and drawing are in step again; what is recorded in one place stays in one. */
  private async beginAnew(id: string): Promise<void> {
    if (this.take?.kept.id !== id || this.explanation.mend) return;
    await this.pause();
    await this.goOn();
  }

  /** Keeps what has come within the last second, and what could not be kept before. */
  private keep(): void {
    const { take } = this;
    for (const one of this.unkept) this.store(one);
    if (!take) return;
    for (const pictures of take.pictures.values()) pictures.look();
    this.followSounds(take);
    this.gather(take);
    take.kept = { ...take.kept, length: Math.round(performance.now() - take.since) };
    this.store(take);
    if (performance.now() - this.litAt > LIGHT_EVERY_MS) this.light(true);
  }

  /** Lets be heard what there is by now; where nothing was to be heard so far, that begins a take. */
  private followSounds({ kept: { id }, mixer, sound }: Running): void {
    if (mixer) mixer.hear(this.soundsNow());
    else if (!sound && this.wish.live?.sounds.length) void this.beginAnew(id);
  }

  private gather(take: Running): void {
    const { noter, waiting, counts, pictures } = take;
    const push = (track: Track, bytes: Uint8Array<ArrayBuffer>) =>
      waiting.push({ take: take.kept.id, track, number: counts[track]++, bytes });
    const noted = noter.take();
    if (noted.length > 0) push('notes', new TextEncoder().encode(writeNoted(noted)));
    for (const track of VIDEO_TRACKS) {
      const video = pictures.get(track);
      for (const bytes of piecesOf(video?.written() ?? [], MOST_KEPT_BYTES)) push(track, bytes);
      if (video) take.kept = { ...take.kept, [track]: video.type };
    }
  }

  /** What cannot be kept stays here, and is tried again. */
  private store(take: Running): void {
    this.enqueue(async () => {
      const pieces = take.waiting.splice(0);
      try {
        await this.kept.put({ ...take.kept, keptAt: Date.now() }, pieces);
        this.unkept.delete(take);
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
    this.enqueue(() => this.kept.putExplanation(explanation));
  }

  private enqueue(work: () => Promise<void>): void {
    this.tail = this.tail.then(work).then(
      () => this.sender.wake(),
      () => this.pauseFor(t('explain.noRoomHere')),
    );
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
