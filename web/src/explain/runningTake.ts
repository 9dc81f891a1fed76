import type { Track, VideoTrack } from '@doodla/core';
import { MOST_PIECE_BYTES, VIDEO_TRACKS } from '@doodla/core';
import type { Noted } from '@doodla/core/explain';
import { WebmSound, writeNoted } from '@doodla/core/explain';
import { nanoid } from 'nanoid';
import type { VideoForm, VideoWriter } from '../media/videoWriter';
import type { FaceCamera } from './faceCamera';
import type { LiveSource } from './liveSource';
import type { Microphone } from '../media/microphone';
import { Mixer } from './mixer';
import type { NotedChoice, NotedDesk } from './noter';
import { Noter } from './noter';
import { piecesOf } from './piecesOf';
import { PictureTrack } from './pictureTrack';
import type { KeptPiece, KeptTake } from './recordedStore';
import { KEPT_IN_ONE } from './sender';
import type { SoundRecorder } from '../media/soundRecorder';
import { recordSound } from '../media/soundRecorder';

/** What is recorded. */
export interface RecordingWish extends NotedChoice {
  microphone: Microphone | undefined;
  /** What moves under the marks, with its sound. */
  live?: LiveSource | undefined;
  /** The camera that sees whoever explains. */
  face?: FaceCamera | undefined;
}

interface TakeOptions {
  readonly desk: NotedDesk;
  readonly wish: RecordingWish;
  readonly explanation: string;
  /** How far the server's clock is ahead of this device's, milliseconds. */
  readonly clockAhead: number;
  /** Told whenever something has come. */
  onNews(): void;
  /** Told where sound or a moving picture cannot be recorded. */
  onFailed(what: 'sound' | 'picture'): void;
  /** Told where it goes on better in another take. */
  onBetterAnew(take: RunningTake): void;
}

/** A page's shape is given back to it when it is drawn, so this is the same for all. Bits per second are from trials. */
const LIVE_FORM: VideoForm = { width: 1280, height: 720, bits: 1e6 };
const FACE_FORM: VideoForm = { width: 320, height: 240, bits: 150_000 };
/** Several of these are one piece for the server. */
const MOST_KEPT_BYTES = Math.floor(MOST_PIECE_BYTES / KEPT_IN_ONE);
/** Sound that comes so late was not heard all the while, as on a machine that slept; milliseconds. */
const STOOD_MS = 8000;

/** A take that is being recorded, with what has come of it and is not kept yet. */
export class RunningTake {
  kept: KeptTake;
  /** What is to be kept. */
  readonly waiting: KeptPiece[] = [];
  /** When it began, by `performance.now`. */
  since = 0;
  private readonly counts: Record<Track, number> = { notes: 0, voice: 0, video: 0, face: 0 };
  private readonly mixer: Mixer | undefined;
  private sound: SoundRecorder | undefined;
  /** How much sound has come, and what of that is to be noted. */
  private readonly come = new WebmSound();
  private readonly noted: Noted[] = [];
  private heardAt = performance.now();
  private noter: Noter | undefined;
  private pictures: ReadonlyMap<VideoTrack, PictureTrack> = new Map();
  private stopWatching: () => void = () => undefined;

  private constructor(private readonly options: TakeOptions) {
    const tracks = { voice: null, video: null, face: null };
    const { explanation } = options;
    this.kept = { id: nanoid(), explanation, startedAt: 0, length: 0, ...tracks, keptAt: 0, over: false };
    const { microphone, live } = options.wish;
    // What is heard beside a voice is mixed to it; where nothing can be heard there is no sound.
    if (live && (microphone || live.sounds.length > 0)) this.mixer = new Mixer(microphone?.context);
  }

  /** Resolves when it records; rejects where sound cannot be recorded. */
  static async begin(options: TakeOptions): Promise<RunningTake> {
    const take = new RunningTake(options);
    try {
      await take.begin();
    } catch (error) {
      take.mixer?.close();
      throw error;
    }
    return take;
  }

  get id(): string {
    return this.kept.id;
  }

  /** How many milliseconds ago it began. */
  get time(): number {
    return performance.now() - this.since;
  }

  /** Takes in what there is to be seen and heard by now, and puts to what is waiting all that has come. */
  keepUp(): void {
    this.followLive();
    this.gather();
  }

  /** Ends it; resolves when all of it has come, and is waiting. */
  async stop(): Promise<void> {
    const length = Math.round(this.time);
    this.stopWatching();
    this.noter?.close();
    await Promise.all([this.sound?.stop(), ...[...this.pictures.values()].map((one) => one.stop())]);
    this.mixer?.close();
    this.gather();
    this.kept = { ...this.kept, length, over: true };
  }

  private gather(): void {
    const noted = [...(this.noter?.take() ?? []), ...this.noted.splice(0)];
    if (noted.length > 0) this.push('notes', new TextEncoder().encode(writeNoted(noted)));
    for (const [track, pictures] of this.pictures) {
      for (const bytes of piecesOf(pictures.written(), MOST_KEPT_BYTES)) this.push(track, bytes);
      this.kept = { ...this.kept, [track]: pictures.type };
    }
    this.kept = { ...this.kept, length: Math.round(this.time) };
  }

  private async begin(): Promise<void> {
    const { desk, wish, clockAhead, onFailed } = this.options;
    this.mixer?.hear(this.soundsNow());
    const stream = this.mixer?.stream ?? wish.microphone?.stream;
    if (stream)
      this.sound = await recordSound(
        stream,
        (bytes) => this.hear(bytes),
        () => onFailed('sound'),
      );
    this.since = this.sound?.startedAt ?? performance.now();
    const time = () => this.time;
    const startedAt = Math.round(Date.now() + clockAhead - this.time);
    this.kept = { ...this.kept, startedAt, voice: this.sound?.type ?? null };
    this.noter = new Noter(desk, wish, time, wish.live);
    const sources = { video: wish.live, face: wish.face };
    const forms = { video: LIVE_FORM, face: FACE_FORM };
    this.pictures = new Map(
      VIDEO_TRACKS.flatMap((track) => {
        const source = sources[track];
        const options = { time, begin: beginVideo, onFailed: () => onFailed('picture') };
        return source ? [[track, new PictureTrack(source, forms[track], options)] as const] : [];
      }),
    );
    this.stopWatching = wish.live?.watch(() => this.followLive()) ?? this.stopWatching;
  }

  private hear(bytes: Uint8Array<ArrayBuffer>): void {
    this.push('voice', bytes);
    this.come.add(bytes);
    const { length } = this.come;
    if (length !== undefined && this.since > 0)
      this.noted.push({ t: Math.round(this.time), do: 'sound', at: Math.round(length) });
    const stood = performance.now() - this.heardAt;
    this.heardAt += stood;
    // Sound comes also where timers are held back.
    this.options.onNews();
    if (stood > STOOD_MS) this.options.onBetterAnew(this);
  }

  private soundsNow(): MediaStreamTrack[] {
    const { microphone, live } = this.options.wish;
    return [...(microphone?.stream.getAudioTracks() ?? []), ...(live?.sounds ?? [])];
  }

  /** Lets be seen and heard what there is by now; where nothing was to be heard so far, that begins a take. */
  private followLive(): void {
    // Also where a browser holds back timers of a tab that is not in front.
    for (const pictures of this.pictures.values()) pictures.look();
    if (this.mixer) this.mixer.hear(this.soundsNow());
    else if (!this.sound && this.options.wish.live?.sounds.length) this.options.onBetterAnew(this);
  }

  private push(track: Track, bytes: Uint8Array<ArrayBuffer>): void {
    this.waiting.push({ take: this.id, track, number: this.counts[track]++, bytes });
  }
}

const beginVideo = async (...args: Parameters<typeof VideoWriter.begin>) => {
  const { VideoWriter: Made } = await import('../media/videoWriter');
  return Made.begin(...args);
};
