import { Store } from '@doodla/core/client';
import { mediaDevices } from '../secure/secureOnly';
import { t } from '../words';

/** A microphone that could not be opened. The message is fit to be shown. */
export class MicrophoneError extends Error {
  override name = 'MicrophoneError';
}

/** How things are with a microphone. */
export type Hearing = 'fine' | 'silent' | 'muted' | 'gone';

/** How often the level is looked at, and how long nothing may come in before that is said; milliseconds. */
const LOOK_MS = 200;
/** The level is told in so many steps, since each is drawn. */
const LEVELS = 16;
const SILENT_MS = 3000;
/** Louder than any microphone's own noise when nothing at all comes in; −66 dB below full scale. */
const NOTHING = 0.0005;

/** A microphone that is open: what it hears, and how loud that is. */
export class Microphone {
  /** How loud it is, 0 to 1 over the 54 dB below full scale. */
  readonly level = new Store(0);
  readonly hearing = new Store<Hearing>('fine');
  /** What it is heard in; others may be heard in it too, until it is closed. */
  readonly context = new AudioContext();
  private readonly analyser: AnalyserNode;
  private readonly samples: Float32Array<ArrayBuffer>;
  private readonly timer: ReturnType<typeof setInterval>;
  private heardAt = performance.now();

  private constructor(readonly stream: MediaStream) {
    this.analyser = this.context.createAnalyser();
    this.analyser.fftSize = 1024;
    this.samples = new Float32Array(this.analyser.fftSize);
    this.context.createMediaStreamSource(stream).connect(this.analyser);
    // A browser may hold it back until somebody has tapped; then there is no level, and sound all the same.
    this.context.resume().catch(() => undefined);
    this.timer = setInterval(() => this.look(), LOOK_MS);
  }

  /** Opens a microphone, the browser's own choice if none is named. Throws MicrophoneError. */
  static async open(device?: string): Promise<Microphone> {
    const devices = mediaDevices();
    if (!devices || typeof MediaRecorder !== 'function')
      throw new MicrophoneError(t('explain.noMicrophoneHere'));
    const audio = { ...(device !== undefined && { deviceId: { exact: device } }), channelCount: 1 };
    try {
      return new Microphone(await devices.getUserMedia({ audio }));
    } catch (error) {
      throw new MicrophoneError(sentenceFor((error as DOMException).name));
    }
  }

  /** The microphones that there are; they have names once one was opened. */
  static async list(): Promise<{ id: string; name: string }[]> {
    const all = (await mediaDevices()?.enumerateDevices()) ?? [];
    return all
      .filter(({ kind }) => kind === 'audioinput')
      .map(({ deviceId, label }, i) => ({
        id: deviceId,
        name: label || t('explain.microphoneNumber', { number: i + 1 }),
      }));
  }

  /** Which one it is. */
  get device(): string | undefined {
    return this.track.getSettings().deviceId;
  }

  close(): void {
    clearInterval(this.timer);
    for (const track of this.stream.getTracks()) track.stop();
    // It is closed already.
    this.context.close().catch(() => undefined);
  }

  private get track(): MediaStreamTrack {
    return this.stream.getAudioTracks()[0]!;
  }

  private look(): void {
    this.analyser.getFloatTimeDomainData(this.samples);
    const power = this.samples.reduce((sum, sample) => sum + sample * sample, 0) / this.samples.length;
    const loudness = Math.sqrt(power);
    const now = performance.now();
    if (loudness > NOTHING || this.context.state !== 'running') this.heardAt = now;
    const level = loudness > 0 ? Math.min(1, Math.max(0, 1 + (20 * Math.log10(loudness)) / 54)) : 0;
    this.level.set(Math.round(level * LEVELS) / LEVELS);
    this.hearing.set(this.hearingAt(now));
  }

  private hearingAt(now: number): Hearing {
    if (this.track.readyState === 'ended') return 'gone';
    if (this.track.muted) return 'muted';
    return now - this.heardAt > SILENT_MS ? 'silent' : 'fine';
  }
}

/** What to do, by the names of Media Capture and Streams (W3C), §10.2.3. */
function sentenceFor(name: string): string {
  if (name === 'NotAllowedError' || name === 'SecurityError') return t('explain.microphoneNotAllowed');
  if (name === 'NotFoundError' || name === 'OverconstrainedError') return t('explain.microphoneNotFound');
  return t('explain.microphoneInUse');
}
