import { Store } from '@doodla/core/client';
import { VideoMaker } from '../media/videoMaker';
import type { PageDesk } from '../room/pageDesk';
import { t } from '../words';
import { timeOfDay } from '../words/dates';
import { videoOntoPage } from './videoOntoPage';

const PICTURE_MS = 100;
/** A longer one would not be taken by the server, seconds. */
const LONGEST = 600;

/** Records what is shown live, until it is stopped or as long as it may be; then it becomes a page. */
export class CameraVideo {
  /** Whole seconds that are recorded. */
  readonly seconds = new Store(0);
  readonly longest = LONGEST;
  private readonly timer = setInterval(() => void this.take(), PICTURE_MS);
  private readonly after: string | undefined;
  private last = performance.now();
  private taking: Promise<void> | undefined;
  private isOver = false;

  /** `onOver` is told once nothing more is recorded. */
  constructor(
    private readonly desk: PageDesk,
    private readonly maker: VideoMaker,
    private readonly onOver: () => void,
  ) {
    this.after = desk.pageId.get();
  }

  /** Throws an error with a sentence where the browser makes no videos. */
  static async begin(desk: PageDesk, onOver: () => void): Promise<CameraVideo> {
    return new CameraVideo(desk, await VideoMaker.begin(desk.screen.canvas), onOver);
  }

  /** Ends it, and puts it on a page. */
  async stop(): Promise<void> {
    if (this.isOver) return;
    this.isOver = true;
    clearInterval(this.timer);
    this.onOver();
    try {
      // What failed was told; what was made before it is kept.
      await this.taking?.catch(() => undefined);
      const name = t('sharing.videoOf', { time: timeOfDay(Date.now()) });
      await videoOntoPage(this.desk, this.maker, { name, after: this.after });
    } catch (error) {
      this.desk.tellProblem((error as Error).message);
    }
  }

  /** One picture at a time; one that takes long stands for as long as it took. */
  private async take(): Promise<void> {
    const { canvas } = this.desk.screen;
    if (this.taking || this.isOver || canvas.width === 0) return;
    const now = performance.now();
    this.taking = this.maker.add(canvas, (now - this.last) / 1000);
    this.last = now;
    try {
      await this.taking;
    } catch (error) {
      this.desk.tellProblem((error as Error).message);
      void this.stop();
    } finally {
      this.taking = undefined;
    }
    this.seconds.set(Math.floor(this.maker.length));
    if (this.maker.length >= LONGEST) void this.stop();
  }
}
