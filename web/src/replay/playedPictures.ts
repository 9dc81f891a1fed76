import type { VideoTrack } from '@doodla/core';
import { Signal } from '@doodla/core/client';
import type { PlayedPart } from '@doodla/core/explain';
import { partAt } from '@doodla/core/explain';
import type { Player } from './player';

/** Videos of an explanation's takes, by their tracks. */
export type VideoFiles = Readonly<Record<VideoTrack, ReadonlyMap<string, Blob>>>;

/** What of a video element is used; a test makes one by hand. */
export type Film = Pick<
  HTMLVideoElement,
  | 'addEventListener'
  | 'currentTime'
  | 'duration'
  | 'pause'
  | 'paused'
  | 'play'
  | 'playbackRate'
  | 'readyState'
  | 'removeEventListener'
  | 'seeking'
>;

/** Farther from where it is to be, seconds, and it is put there; what plays may be a little off. */
const OUT_OF_STEP = { playing: 0.15, still: 0.02 } as const;
/** So near its end it does not play on, seconds, since it would begin again. */
const END = 0.05;
/** `HTMLMediaElement.HAVE_CURRENT_DATA` */
const HAS_PICTURE = 2;
/** What tells that another picture is there. */
const NEWS = ['seeked', 'loadeddata'] as const;

/** The moving pictures of an explanation, take by take as its parts play. */
export class PlayedPictures<Played extends Film = HTMLVideoElement> {
  /** Tells that there is another picture though the time is the same. */
  readonly changed = new Signal();
  private film: Played | undefined;

  constructor(
    private readonly played: readonly PlayedPart[],
    private readonly films: ReadonlyMap<string, Played>,
  ) {}

  /** The film that is seen now; undefined where there is none, or its picture is not there yet. */
  get now(): Played | undefined {
    return this.film && this.film.readyState >= HAS_PICTURE ? this.film : undefined;
  }

  /** Keeps in step with a player until that is taken back. */
  follow(player: Pick<Player, 'speed' | 'state'>): () => void {
    const keepStep = () => {
      const { time, isPlaying } = player.state.get();
      this.keepStep(time, isPlaying ? player.speed.get() : undefined);
    };
    const news = () => {
      keepStep();
      this.changed.tell();
    };
    for (const film of this.films.values()) for (const event of NEWS) film.addEventListener(event, news);
    const stop = player.state.subscribe(keepStep);
    keepStep();
    return () => {
      stop();
      for (const film of this.films.values()) for (const event of NEWS) film.removeEventListener(event, news);
      this.film?.pause();
    };
  }

  /** Puts the film where a time of the playback is, and lets it go on if there is a speed. */
  private keepStep(time: number, speed: number | undefined): void {
    const part = partAt(this.played, time);
    const film = part && this.films.get(part.take.id);
    if (film !== this.film) {
      this.film?.pause();
      this.film = film;
      this.changed.tell();
    }
    if (!film || !part) return;
    const end = Number.isFinite(film.duration) ? film.duration : Infinity;
    const wanted = Math.min(end, (part.from + Math.min(time - part.start, part.length)) / 1000);
    const goesOn = speed !== undefined && wanted < end - END;
    if (!goesOn && !film.paused) film.pause();
    const most = goesOn && !film.paused ? OUT_OF_STEP.playing * Math.max(1, speed) : OUT_OF_STEP.still;
    if (!film.seeking && Math.abs(film.currentTime - wanted) > most) film.currentTime = wanted;
    if (!goesOn) return;
    if (film.playbackRate !== speed) film.playbackRate = speed;
    // Where the browser does not let it play it is put on picture by picture, as while it stands.
    if (film.paused) film.play().catch(() => undefined);
  }
}
