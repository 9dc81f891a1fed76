import { Store } from '@doodla/core/client';
import { fileName } from '../handout/fileName';
import type { Microphone } from '../media/microphone';
import { VideoMaker } from '../media/videoMaker';
import { logOf } from '../room/logOf';
import type { PageDesk } from '../room/pageDesk';
import { t } from '../words';
import { timeOfDay } from '../words/dates';
import { pictureShown } from './pictureShown';
import { videoOntoPage } from './videoOntoPage';
import { VideoKeeper } from './videoStore';

const PICTURE_MS = 100;
/** What was recorded is kept so often, seconds, and can be read up to there. */
const KEPT_EVERY = 1;
/** A longer one would not be taken by the server, seconds. */
const LONGEST = 600;

/** Records what is shown live, until it is stopped or as long as it may be; then it becomes a page. */
export class CameraVideo {
  /** Whole seconds that are recorded. */
  readonly seconds = new Store(0);
  readonly longest = LONGEST;
  private readonly timer = setInterval(() => void this.take(), PICTURE_MS);
  private keptAt = -Infinity;
  private taking: Promise<void> | undefined;
  private isOver = false;

  private constructor(
    private readonly desk: PageDesk,
    private readonly maker: VideoMaker,
    private readonly microphone: Microphone | undefined,
    private readonly place: { name: string; after: string | undefined },
    private readonly keeper: VideoKeeper,
    /** Told once nothing more is recorded. */
    private readonly onOver: () => void,
  ) {}

  /** Begins one, with what a microphone hears if there is one. Throws an error with a sentence where the browser makes no videos. */
  static async begin(
    desk: PageDesk,
    microphone: Microphone | undefined,
    onOver: () => void,
  ): Promise<CameraVideo> {
    const place = {
      name: t('sharing.videoOf', { time: timeOfDay(Date.now()) }),
      after: desk.pageId.get(),
    };
    await pictureShown(desk.screen);
    const keeper = new VideoKeeper();
    const maker = await VideoMaker.begin(desk.screen.canvas, {
      sound: microphone?.stream,
      onBytes: (part, bytes) => keeper.add(part, bytes),
      onSoundFailed: () => desk.tellProblem(t('sharing.videoGoesOnSilent')),
    });
    return new CameraVideo(desk, maker, microphone, place, keeper, onOver);
  }

  /** Ends it, and puts it on a page. */
  async stop(): Promise<void> {
    if (this.isOver) return;
    this.isOver = true;
    clearInterval(this.timer);
    this.onOver();
    const { desk, maker, place, keeper } = this;
    let isElsewhere = maker.length === 0;
    try {
      // What failed was told; what was made before it is kept.
      await this.taking?.catch(() => undefined);
      if (maker.length > 0) {
        const { width, height } = maker;
        const file = await maker.finish(fileName(place.name));
        isElsewhere = await videoOntoPage(desk, file, { after: place.after, width, height });
      }
    } catch (error) {
      desk.tellProblem((error as Error).message);
    } finally {
      this.microphone?.close();
      await keeper.end(isElsewhere);
    }
  }

  /** One picture at a time. */
  private async take(): Promise<void> {
    const { desk, maker, keeper } = this;
    const { canvas } = desk.screen;
    if (this.taking || this.isOver || canvas.width === 0) return;
    const isKept = maker.time - this.keptAt >= KEPT_EVERY;
    if (isKept) this.keptAt = maker.time;
    this.taking = maker.addNow(canvas, PICTURE_MS / 1000, isKept);
    try {
      await this.taking;
    } catch (error) {
      desk.tellProblem((error as Error).message);
      void this.stop();
    } finally {
      this.taking = undefined;
    }
    const { length, width, height, types } = maker;
    const { name, after } = this.place;
    if (isKept) keeper.keep({ log: logOf(desk.room).id, name, after, width, height, types, length });
    this.seconds.set(Math.floor(maker.length));
    if (maker.length >= LONGEST) void this.stop();
  }
}
