import { format } from 'date-fns';
import { fileName } from '../handout/fileName';
import { cutPicture, grabPicture } from '../handout/grabPicture';
import { VideoMaker } from '../media/videoMaker';
import type { PageDesk } from '../room/pageDesk';
import { t } from '../words';
import { timeOfDay } from '../words/dates';
import { videoOntoPage } from './videoOntoPage';

const WHOLE = { x: 0, y: 0, width: 1, height: 1 };
/** So long each picture is shown in a video, seconds. */
const SHOWN = 0.1;

/** What becomes of pictures that are taken one after the other. */
interface PictureKeeper {
  /** No more are taken. */
  readonly most: number;
  keep(picture: HTMLCanvasElement): Promise<void>;
  /** Told once, after the last one. */
  end(): Promise<void>;
}

export type LapseForm = 'pages' | 'video';

/** Takes pictures of what is shown live at even times, each onto a page of its own or all into one video. */
export class TimeLapse {
  private readonly timer: ReturnType<typeof setInterval>;
  private readonly keeper: PictureKeeper;
  private taken = 0;
  private taking: Promise<void>;
  private isOver = false;

  /** `onOver` is told once no more are taken. */
  constructor(
    private readonly desk: PageDesk,
    seconds: number,
    form: LapseForm,
    private readonly onOver: () => void,
  ) {
    this.keeper = form === 'video' ? new IntoVideo(desk) : new OntoPages(desk);
    this.timer = setInterval(() => this.next(), seconds * 1000);
    this.taking = this.take();
  }

  async stop(): Promise<void> {
    if (this.isOver) return;
    this.isOver = true;
    clearInterval(this.timer);
    this.onOver();
    await this.taking;
    await this.keeper.end().catch((error: Error) => this.desk.tellProblem(error.message));
  }

  private next(): void {
    this.taking = this.taking.then(() => this.take());
  }

  private async take(): Promise<void> {
    const { desk, keeper } = this;
    const live = desk.screen.state.get();
    if (this.isOver || live === undefined || desk.pageId.get() !== live.page) return;
    if (desk.screen.canvas.width === 0) return;
    this.taken += 1;
    try {
      await keeper.keep(await grabPicture(desk, false));
      if (this.taken >= keeper.most) void this.stop();
    } catch (error) {
      desk.tellProblem((error as Error).message);
      void this.stop();
    }
  }
}

/** Each onto a page of its own, in their order. */
class OntoPages implements PictureKeeper {
  /** More than this fills a lesson with pages that nobody looks at. */
  readonly most = 120;
  private after: string | undefined;

  constructor(private readonly desk: PageDesk) {}

  async keep(picture: HTMLCanvasElement): Promise<void> {
    const { desk } = this;
    const shown = desk.pageId.get();
    const { material, width, height } = await desk.pictureActions.store(await cutPicture(picture, WHOLE));
    this.after = desk.pageActions.addQuietly(
      { width, height, surface: { kind: 'picture', material } },
      this.after ?? shown!,
      format(new Date(), 'HH:mm:ss'),
    );
  }

  end(): Promise<void> {
    return Promise.resolve();
  }
}

/** All into one video. */
class IntoVideo implements PictureKeeper {
  /** Five minutes of video. */
  readonly most = 3000;
  private maker: VideoMaker | undefined;
  private readonly after: string | undefined;

  constructor(private readonly desk: PageDesk) {
    this.after = desk.pageId.get();
  }

  async keep(picture: HTMLCanvasElement): Promise<void> {
    this.maker ??= await VideoMaker.begin(picture);
    await this.maker.add(picture, SHOWN);
  }

  async end(): Promise<void> {
    const { maker, desk, after } = this;
    if (!maker) return;
    const { width, height } = maker;
    const file = await maker.finish(fileName(t('sharing.lapseOf', { time: timeOfDay(Date.now()) })));
    await videoOntoPage(desk, file, { after, width, height });
  }
}
