import type { NotedTake, PlayedPart } from '@doodla/core/explain';
import { partAt } from '@doodla/core/explain';
import { Store } from '@doodla/core/client';
import type { PlayedSound, Speed } from './player';

/** Faster than this nobody understands a word, and it is silent. */
const FASTEST_HEARD = 2;

/** What of an audio element is used; a test makes one by hand. */
export type Voice = Pick<
  HTMLAudioElement,
  'currentTime' | 'ended' | 'muted' | 'pause' | 'paused' | 'play' | 'playbackRate' | 'seeking' | 'volume'
>;

/** The voice of an explanation, take by take as its parts play. */
export class PlayedVoice implements PlayedSound {
  /** How loud it is, 0 to 1. */
  readonly loudness = new Store(1);
  private part: PlayedPart | undefined;
  private voice: Voice | undefined;

  /** `voices` are of each take that has one, and what was noted in it says where in it something was heard; `onProblem` is told once when one cannot be played. */
  constructor(
    readonly played: readonly PlayedPart[],
    private readonly voices: ReadonlyMap<string, Voice>,
    private readonly noted: ReadonlyMap<string, NotedTake>,
    private readonly onProblem: () => void,
  ) {}

  play(time: number, speed: Speed): void {
    const part = partAt(this.played, time);
    this.voice?.pause();
    this.part = part;
    const { voice } = part ?? {};
    const heard = voice ? this.voices.get(voice.take.id) : undefined;
    this.voice = heard;
    if (!part || !voice || !heard) return;
    const at = voice.from + time - part.start;
    heard.currentTime = (this.noted.get(voice.take.id)?.sound.toSound(at) ?? at) / 1000;
    this.tune(heard, speed);
    heard.play().catch((error: DOMException) => {
      // Stopped again before it began.
      if (error.name === 'AbortError') return;
      this.voice = undefined;
      this.onProblem();
    });
  }

  pause(): void {
    this.voice?.pause();
  }

  follow(time: number, speed: Speed): number | undefined {
    const part = partAt(this.played, time);
    if (part !== this.part) this.play(time, speed);
    const { voice } = this;
    if (!part?.voice || !voice || voice.ended) return undefined;
    this.tune(voice, speed);
    // While it is fetched or found what is seen waits for it.
    if (voice.seeking || voice.paused) return time;
    const place = voice.currentTime * 1000;
    const taken = this.noted.get(part.voice.take.id)?.sound.toTake(place) ?? place;
    return Math.min(part.start + taken - part.voice.from, part.start + part.length);
  }

  private tune(voice: Voice, speed: Speed): void {
    if (voice.playbackRate !== speed) voice.playbackRate = speed;
    voice.muted = speed > FASTEST_HEARD || this.loudness.get() === 0;
    voice.volume = this.loudness.get();
  }
}
