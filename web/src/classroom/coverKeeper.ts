import { setCover } from '../api/lessons';
import type { PageDesk } from '../room/pageDesk';
import { drawThumbnail } from '../room/thumbnail';

const WIDTH = 480;
/** Nobody has written for so long before a picture is drawn, and so far apart are two of them; milliseconds. */
const QUIET_MS = 4000;
const APART_MS = 30_000;

type KeptDesk = Pick<PageDesk, 'marksChanged' | 'page' | 'pages' | 'room' | 'sitting'>;

/**
 * Keeps the picture of a lesson or class on the start page as it is written on: of the lesson's first page, or of the page
 * that the class was on. It is drawn while nobody writes. `draw` and `send` are given by tests.
 */
export class CoverKeeper {
  private timer: ReturnType<typeof setTimeout> | undefined;
  private last = -Infinity;
  private readonly stops: (() => void)[];

  constructor(
    private readonly desk: KeptDesk,
    private readonly draw: () => Promise<Blob | undefined>,
    private readonly send: typeof setCover = setCover,
  ) {
    const changed = () => this.wait();
    this.stops = [desk.marksChanged.subscribe(changed), desk.pages.subscribe(changed)];
  }

  stop(): void {
    clearTimeout(this.timer);
    for (const stop of this.stops) stop();
  }

  private wait(): void {
    clearTimeout(this.timer);
    const soonest = this.last + APART_MS - Date.now();
    this.timer = setTimeout(() => void this.keep(), Math.max(QUIET_MS, soonest));
  }

  private async keep(): Promise<void> {
    this.last = Date.now();
    const { room, sitting } = this.desk;
    try {
      const picture = await this.draw();
      if (picture)
        await this.send(sitting === undefined ? 'lessons' : 'sittings', sitting ?? room.lesson, picture);
    } catch {
      // Without a connection, or a page that cannot be drawn: the picture that there is stays, until the next change.
    }
  }
}

/** The picture of the page that stands for a lesson or class; undefined where there is none. */
export async function drawCover(desk: PageDesk): Promise<Blob | undefined> {
  const page = desk.sitting === undefined ? desk.pages.get()[0] : desk.page;
  if (!page) return undefined;
  const canvas = document.createElement('canvas');
  await drawThumbnail(canvas, page, desk, WIDTH, ({ space }) => space === 'class');
  return new Promise((resolve) => canvas.toBlob((blob) => resolve(blob ?? undefined), 'image/png'));
}
