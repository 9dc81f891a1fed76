import type { PictureDesk, PictureSender, PictureStore } from './pictureSender';
import { t } from '../words';

/** Puts picture files on pages. How that is done is fetched when it is first needed. */
export class PictureActions {
  private sender: Promise<PictureSender> | undefined;

  constructor(
    private readonly desk: PictureDesk,
    private readonly server: PictureStore,
  ) {}

  /** As `PictureSender.place`. */
  place(...[files, ...where]: Parameters<PictureSender['place']>): Promise<void> {
    return this.tell(async () => {
      if (files.length > 0) await (await this.load()).place(files, ...where);
    });
  }

  /** As `PictureSender.stamp`. */
  stamp(id: string, at: { x: number; y: number }): Promise<void> {
    return this.tell(async () => (await this.load()).stamp(id, at));
  }

  /** As `PictureSender.store`. */
  async store(file: Blob): ReturnType<PictureSender['store']> {
    return (await this.load()).store(file);
  }

  private load(): Promise<PictureSender> {
    this.sender ??= import('./pictureSender').then(
      ({ PictureSender }) => new PictureSender(this.desk, this.server),
    );
    // Without a connection it cannot be had; it is tried again the next time.
    this.sender.catch(() => (this.sender = undefined));
    return this.sender;
  }

  private tell(work: () => Promise<void>): Promise<void> {
    return work().catch(() => this.desk.tellProblem(t('desk.thisPictureCouldNotBe')));
  }
}
