import { format } from 'date-fns';
import { cutPicture, grabPicture } from './grabPicture';
import type { PageDesk } from '../room/pageDesk';

/** More than this fills a lesson with pages that nobody looks at. */
const MOST = 120;
const WHOLE = { x: 0, y: 0, width: 1, height: 1 };

/** Takes pictures of what is shown live at even times, each onto a page of its own, in their order. */
export class TimeLapse {
  private readonly timer: ReturnType<typeof setInterval>;
  private after: string | undefined;
  private taken = 0;

  constructor(
    private readonly desk: PageDesk,
    seconds: number,
  ) {
    this.timer = setInterval(() => void this.take(), seconds * 1000);
    void this.take();
  }

  stop(): void {
    clearInterval(this.timer);
  }

  private async take(): Promise<void> {
    const { desk } = this;
    const live = desk.screen.state.get();
    if (live === undefined || desk.pageId.get() !== live.page) return;
    if (++this.taken >= MOST) this.stop();
    try {
      const png = await cutPicture(await grabPicture(desk, false), WHOLE);
      const { material, width, height } = await desk.pictureActions.store(png);
      this.after = desk.pageActions.addQuietly(
        { width, height, surface: { kind: 'picture', material } },
        this.after ?? live.page,
        format(new Date(), 'HH:mm:ss'),
      );
    } catch (error) {
      this.stop();
      desk.tellProblem((error as Error).message);
    }
  }
}
