import type { Replay, Span } from '@doodla/core/replay';
import { Store } from '@doodla/core/client';

export const SPEEDS = [0.5, 0.75, 1, 1.25, 1.5, 2, 4, 8, 16] as const;
export type Speed = (typeof SPEEDS)[number];

export interface Playing {
  /** Milliseconds of the playback. */
  readonly time: number;
  readonly isPlaying: boolean;
}

/** What calls back once with the next frame, and does not when that is taken back. */
export interface Frames {
  request(work: (now: number) => void): number;
  cancel(frame: number): void;
}

const FRAMES: Frames = {
  request: (work) => requestAnimationFrame(work),
  cancel: (frame) => cancelAnimationFrame(frame),
};

/** What is heard while it plays, which has a clock of its own. */
export interface PlayedSound {
  /** Plays on from a time of the playback. */
  play(time: number, speed: Speed): void;
  pause(): void;
  /** Where it is by now, having been at a time a moment ago; undefined where nothing is to be heard there. */
  follow(time: number, speed: Speed): number | undefined;
}

/** Plays a replay: where it is, and how it goes on from frame to frame. */
export class Player {
  readonly state = new Store<Playing>({ time: 0, isPlaying: false });
  readonly speed = new Store<Speed>(1);
  /** Where it waits until whoever watches goes on; milliseconds of the playback. */
  readonly heldAt = new Store<number | undefined>(undefined);
  /** A stretch that is marked over the time, if one is. */
  readonly marked = new Store<Span | undefined>(undefined);
  private stops: readonly number[] = [];
  private frame: number | undefined;
  private last: number | undefined;
  /** Where to stop; the end of it all, unless one step is played. */
  private until: number | undefined;

  constructor(
    readonly replay: Replay,
    private readonly frames: Frames = FRAMES,
    private readonly sound?: PlayedSound,
  ) {}

  /** Plays on, from the beginning where it is at its end. */
  play(): void {
    const { length } = this.replay;
    if (this.state.get().time >= length) this.go(0);
    this.run(length);
  }

  pause(): void {
    if (this.frame !== undefined) this.frames.cancel(this.frame);
    this.frame = this.last = this.until = undefined;
    this.sound?.pause();
    this.state.patch({ isPlaying: false });
    this.heldAt.set(undefined);
  }

  /** Says where it is going to wait. */
  waitAt(stops: readonly number[]): void {
    this.stops = stops;
  }

  toggle(): void {
    if (this.state.get().isPlaying) this.pause();
    else this.play();
  }

  /** Plays a stretch of it, whatever it waits at else; resolves when that has been played, or was stopped. */
  async playSpan({ from, to }: Span): Promise<void> {
    const { stops } = this;
    this.stops = [];
    this.pause();
    this.go(from);
    this.run(Math.min(to, this.replay.length));
    await new Promise<void>((resolve) => {
      const end = this.state.subscribe(() => {
        if (this.state.get().isPlaying) return;
        end();
        resolve();
      });
    });
    this.stops = stops;
  }

  /** Goes to a time; playing goes on from there. */
  seek(time: number): void {
    this.until &&= this.replay.length;
    this.heldAt.set(undefined);
    this.go(time);
    if (this.frame !== undefined) this.sound?.play(this.state.get().time, this.speed.get());
  }

  /** Plays the next step and stops; while one is played this way, it is there at once. */
  next(): void {
    const { time } = this.state.get();
    const step = this.replay.nextStep(time);
    const isUnderWay = this.frame !== undefined && this.until === step?.to;
    this.pause();
    if (!step) return this.go(this.replay.length);
    if (isUnderWay || step.to === step.from) return this.go(step.to);
    this.go(Math.max(time, step.from));
    this.run(step.to);
  }

  /** Goes back before the last step. */
  previous(): void {
    this.pause();
    this.go(this.replay.previousStep(this.state.get().time));
  }

  private run(until: number): void {
    this.until = until;
    this.heldAt.set(undefined);
    this.state.patch({ isPlaying: true });
    this.sound?.play(this.state.get().time, this.speed.get());
    this.frame ??= this.frames.request(this.tick);
  }

  private go(time: number): void {
    this.state.patch({ time: Math.min(Math.max(0, time), this.replay.length) });
  }

  private readonly tick = (now: number): void => {
    const passed = this.last === undefined ? 0 : now - this.last;
    this.last = now;
    const end = this.until ?? this.replay.length;
    const before = this.state.get().time;
    const speed = this.speed.get();
    // What is heard leads, so that what is seen keeps in step with it.
    const there = this.sound?.follow(before, speed) ?? before + passed * speed;
    const time = Math.min(Math.max(before, there), end);
    const stop = this.stops.filter((each) => each > before && each <= time).sort((a, b) => a - b)[0];
    this.go(stop ?? time);
    if (stop === undefined && time < end) {
      this.frame = this.frames.request(this.tick);
      return;
    }
    this.pause();
    this.heldAt.set(stop);
  };
}
