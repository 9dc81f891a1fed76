import type { Mark, Rect } from '@doodla/core';
import { orderOnTop } from '@doodla/core';
import { stampFile } from '../api/shelf';
import type { Desk } from './desk';
import type { PreparedPicture } from '../pictures/preparePicture';
import type { Size } from '../canvas/view';
import type { Selection } from './selection';
import { t } from '../words';

/** What placing pictures needs of a page. */
export type PictureDesk = Pick<
  Desk,
  'mayWrite' | 'middle' | 'newMark' | 'tellProblem' | 'page' | 'pageId' | 'pictures' | 'takeTool' | 'target'
> & { selection: Pick<Selection, 'select'> };

/** Where pictures are kept. */
export interface PictureStore {
  /** Stores a picture as it is, and returns its id. Throws an error with a sentence. */
  upload(picture: Blob): Promise<string>;
}

/** Part of the page that a new picture takes at most. */
const LARGEST = 0.7;
/** How far several pictures put down at once lie apart, page units. */
const CASCADE = 28;
/** Longer side of a teacher's own stamp, page units. */
const STAMP_SIDE = 96;

/** Puts picture files on the shown page. */
export class PictureSender {
  /** Own stamps that this lesson has already been given. */
  private readonly stamps = new Map<string, Promise<PreparedPicture & { material: string }>>();

  constructor(
    private readonly desk: PictureDesk,
    private readonly server: PictureStore,
  ) {}

  /**
   * Sends files and places them, the first with its middle at a point; in the middle of the page if none is given.
   * `alt` says what they show.
   */
  async place(
    files: readonly Blob[],
    at?: { x: number; y: number },
    alt: string | null = null,
  ): Promise<void> {
    if (!this.desk.mayWrite) return this.desk.tellProblem(t('desk.pensAreDownSoNo'));
    // The page may be turned while they are sent.
    const page = this.desk.pageId.get();
    const marks: Mark[] = [];
    for (const [i, file] of files.entries()) {
      try {
        const mark = await this.send(file, i, { at, page });
        if (mark) marks.push({ ...mark, alt });
      } catch (error) {
        this.desk.tellProblem((error as Error).message);
      }
    }
    const put = marks.length > 0 && this.desk.target.perform(marks.map((mark) => ({ do: 'add', mark })));
    if (put && page === this.desk.pageId.get()) {
      this.desk.takeTool('select');
      this.desk.selection.select(marks.map(({ id }) => id));
    }
  }

  /** Puts one of the teacher's own stamps with its middle at a point. */
  async stamp(id: string, at: { x: number; y: number }): Promise<void> {
    const page = this.desk.pageId.get();
    try {
      let stored = this.stamps.get(id);
      if (!stored) this.stamps.set(id, (stored = this.fetchStamp(id)));
      const { material, width, height } = await stored;
      const scale = STAMP_SIDE / Math.max(width, height);
      const size = { width: width * scale, height: height * scale };
      const box = { x: at.x - size.width / 2, y: at.y - size.height / 2, ...size };
      const mark = this.pictureMark(material, box, page);
      if (mark) this.desk.target.perform([{ do: 'add', mark }]);
    } catch (error) {
      this.stamps.delete(id);
      this.desk.tellProblem((error as Error).message);
    }
  }

  private async fetchStamp(id: string): Promise<PreparedPicture & { material: string }> {
    // Told below, with what the server may have answered.
    const response = await fetch(stampFile(id)).catch(() => undefined);
    if (!response?.ok) throw new Error(t('desk.thisStampCannotBeFetched'));
    return this.store(await response.blob());
  }

  private async send(
    file: Blob,
    n: number,
    { at, page }: { at: { x: number; y: number } | undefined; page: string | undefined },
  ): Promise<Mark | undefined> {
    const { material, ...prepared } = await this.store(file);
    const mark = this.pictureMark(material, this.boxFor(prepared, n, at), page);
    for (let i = 0; mark && i < n; i++) mark.order = orderOnTop([mark.order]);
    return mark;
  }

  private pictureMark(material: string, box: Rect, page: string | undefined): Mark | undefined {
    const common = this.desk.newMark(undefined, page);
    if (!common) return undefined;
    return {
      ...common,
      kind: 'picture',
      material,
      crop: { x: 0, y: 0, width: 1, height: 1 },
      flip: false,
      style: { opacity: 1 },
      rotation: 0,
      ...box,
    };
  }

  /** Makes a file ready, sends it, and returns the id it has in this lesson. Throws an error with a sentence. */
  async store(file: Blob): Promise<PreparedPicture & { material: string }> {
    const { preparePicture } = await import('../pictures/preparePicture');
    const prepared = await preparePicture(file);
    if (prepared.scaled) this.desk.tellProblem(t('desk.thePictureIsVeryLarge'));
    const material = await this.server.upload(prepared.blob);
    this.desk.pictures.put(material, await createImageBitmap(prepared.blob));
    return { ...prepared, material };
  }

  private boxFor({ width, height }: Size, n: number, at: { x: number; y: number } | undefined): Rect {
    const { page } = this.desk;
    const room = { width: (page?.width ?? 1000) * LARGEST, height: (page?.height ?? 700) * LARGEST };
    const factor = Math.min(1, room.width / width, room.height / height);
    const middle = at ?? this.desk.middle();
    return {
      x: middle.x - (width * factor) / 2 + n * CASCADE,
      y: middle.y - (height * factor) / 2 + n * CASCADE,
      width: width * factor,
      height: height * factor,
    };
  }
}
