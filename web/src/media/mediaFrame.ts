import type { Page, Playing } from '@doodla/core';
import { playedTo } from '@doodla/core';
import { Store } from '@doodla/core/client';
import type { View } from '../canvas/view';
import type { Desk } from '../desk/desk';
import { fetchRecording } from './fetchRecording';
import type { FrameDesk } from './keepFrame';
import { keepFrame, RECORDING_GROUND } from './keepFrame';

/** Farther apart than this, seconds, and it is put where the class is. */
const OUT_OF_STEP = 0.35;
const CHECK_MS = 500;

export interface RecordingState {
  /** How much of the file has come, 0 to 1. */
  loaded: number;
  /** Seconds; 0 until it is known. */
  duration: number;
  position: number;
  playing: boolean;
  /** The browser plays it without sound until somebody has touched the page. */
  silenced: boolean;
}

/** A recording under the canvases: the whole file is fetched first, then played in step for all. */
export class MediaFrame {
  readonly state = new Store<RecordingState>({
    loaded: 0,
    duration: 0,
    position: 0,
    playing: false,
    silenced: false,
  });
  private readonly video = document.createElement('video');
  private material: string | undefined;
  private page: Page | undefined;
  private abort = new AbortController();
  private readonly timer: ReturnType<typeof setInterval>;
  private readonly stop: () => void;
  /** While preparing, there is no class to be in step with. */
  private own: Playing | undefined;
  /** Once somebody records what is heard. */
  private heard: Heard | undefined;

  constructor(
    host: HTMLElement,
    private readonly desk: FrameDesk & Pick<Desk, 'isTeacher' | 'token'>,
    private readonly onChange: () => void,
  ) {
    const { video } = this;
    video.playsInline = true;
    video.style.cssText = `position:absolute;top:0;left:0;max-width:none;background:${RECORDING_GROUND};pointer-events:none;transform-origin:0 0;display:none;`;
    video.addEventListener('loadedmetadata', () => void this.shown(host));
    video.addEventListener('seeked', () => this.onChange());
    video.addEventListener('ended', () => this.ended());
    host.prepend(video);
    this.stop = desk.classroom?.scene.subscribe(() => this.keepStep()) ?? (() => undefined);
    this.timer = setInterval(() => this.keepStep(), CHECK_MS);
  }

  show(page: Page): void {
    const material = page.surface.kind === 'media' ? page.surface.material : undefined;
    this.page = page;
    this.video.style.display = material === undefined ? 'none' : '';
    this.video.style.width = `${page.width}px`;
    this.video.style.height = `${page.height}px`;
    if (material === undefined) return this.video.pause();
    if (material === this.material) return this.keepStep();
    this.material = material;
    void this.fetch(material);
  }

  setView({ scale, x, y }: View): void {
    this.video.style.transform = `translate(${x}px, ${y}px) scale(${scale})`;
  }

  /** Starts or stops it for everybody; for the teacher. */
  toggle(): void {
    if (this.playing?.playing) return this.tell(false, this.video.currentTime);
    void keepFrame(this.desk, {
      drawInto: (ctx) => this.drawInto(ctx),
      position: this.state.get().position,
    });
    const atEnd = this.video.currentTime >= this.video.duration - 0.05;
    this.tell(true, atEnd ? 0 : this.video.currentTime);
  }

  /** Goes to a place, in seconds, for everybody. */
  seek(position: number): void {
    this.tell(this.playing?.playing ?? false, position);
  }

  /** Stops it as soon as the teacher writes, so that the writing is on what was meant. */
  holdForWriting(): void {
    if (this.playing?.playing && this.desk.isTeacher) this.tell(false, this.video.currentTime);
  }

  /** Lets sound through after the person has touched the page. */
  unsilence(): void {
    this.video.muted = false;
    this.state.patch({ silenced: false });
  }

  /** Draws the frame that is seen now, in page units. */
  drawInto(ctx: CanvasRenderingContext2D): void {
    if (!this.page || this.shownAt === undefined) return;
    ctx.drawImage(this.video, 0, 0, this.page.width, this.page.height);
  }

  /** Where the film is that is seen now, seconds; undefined while none is. */
  get shownAt(): number | undefined {
    return this.isShown && this.video.videoWidth > 0 ? this.video.currentTime : undefined;
  }

  /** What is heard of it, as a track that can be recorded; it is heard here all the same. */
  sound(): MediaStreamTrack | undefined {
    if (!this.isShown || !Number.isFinite(this.video.duration)) return undefined;
    this.heard ??= heardOf(this.video);
    return this.heard.track;
  }

  destroy(): void {
    this.heard?.close();
    clearInterval(this.timer);
    this.stop();
    this.abort.abort();
    URL.revokeObjectURL(this.video.src);
    this.video.remove();
  }

  private get isShown(): boolean {
    return this.page?.surface.kind === 'media';
  }

  private get playing(): Playing | undefined {
    const { classroom } = this.desk;
    const playing = classroom ? (classroom.scene.get().playing ?? undefined) : this.own;
    return playing?.page === this.page?.id ? playing : undefined;
  }

  private tell(playing: boolean, position: number): void {
    const { classroom } = this.desk;
    if (!this.page) return;
    const at = classroom?.now ?? Date.now();
    const told: Playing = { page: this.page.id, playing, position: Math.max(0, position), at };
    if (classroom) classroom.setScene({ playing: told });
    else this.own = told;
    this.keepStep();
  }

  private ended(): void {
    if (this.desk.isTeacher && this.playing?.playing) this.tell(false, this.video.duration);
  }

  /** Puts it where the class is, if it is not there already. */
  private keepStep(): void {
    const { video, playing, desk } = this;
    if (!Number.isFinite(video.duration) || !this.isShown) return;
    const now = desk.classroom?.now ?? Date.now();
    const wanted = playing ? Math.min(playedTo(playing, now), video.duration) : 0;
    if (Math.abs(video.currentTime - wanted) > (playing?.playing ? OUT_OF_STEP : 0.02))
      video.currentTime = wanted;
    if (playing?.playing && video.paused && wanted < video.duration) void this.play();
    if (!playing?.playing && !video.paused) video.pause();
    this.state.patch({
      position: video.currentTime,
      duration: video.duration,
      playing: playing?.playing ?? false,
    });
  }

  private async play(): Promise<void> {
    try {
      await this.video.play();
    } catch (error) {
      if ((error as DOMException).name !== 'NotAllowedError') return;
      this.video.muted = true;
      this.state.patch({ silenced: true });
      // Refused until the person has touched the page; the bar then asks for a tap.
      await this.video.play().catch(() => undefined);
    }
  }

  private async fetch(material: string): Promise<void> {
    this.abort.abort();
    this.abort = new AbortController();
    this.state.patch({ loaded: 0, duration: 0 });
    try {
      const file = await fetchRecording(material, this.desk.token, this.abort.signal, (loaded) =>
        this.state.patch({ loaded }),
      );
      if (this.material !== material) return;
      URL.revokeObjectURL(this.video.src);
      this.video.src = URL.createObjectURL(file);
    } catch (error) {
      if (!this.abort.signal.aborted) this.desk.tellProblem((error as Error).message);
    }
  }

  private async shown(host: HTMLElement): Promise<void> {
    await knownLength(this.video);
    host.dataset.shown = 'true';
    this.state.patch({ loaded: 1 });
    this.keepStep();
    this.onChange();
  }
}

interface Heard {
  readonly track: MediaStreamTrack;
  close(): void;
}

/** Leads what is heard of a recording into a track too. */
function heardOf(video: HTMLVideoElement): Heard {
  const context = new AudioContext();
  const out = context.createMediaStreamDestination();
  const source = context.createMediaElementSource(video);
  source.connect(out);
  source.connect(context.destination);
  // Recording was begun by a tap, so it may run.
  context.resume().catch(() => undefined);
  return {
    track: out.stream.getAudioTracks()[0]!,
    // It is closed already.
    close: () => void context.close().catch(() => undefined),
  };
}

/** Waits until a recording's length is known: some that a browser has made say so only at their end. */
async function knownLength(video: HTMLVideoElement): Promise<void> {
  if (Number.isFinite(video.duration)) return;
  const known = new Promise((resolve) => video.addEventListener('durationchange', resolve, { once: true }));
  video.currentTime = Number.MAX_SAFE_INTEGER;
  await known;
  video.currentTime = 0;
}
