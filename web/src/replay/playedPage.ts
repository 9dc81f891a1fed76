import type { Mark, Page, Rect } from '@doodla/core';
import { byOrder, isFoldedAway, isStanding } from '@doodla/core';
import type { Replay, ReplayMoment } from '@doodla/core/replay';
import type { Canvas } from '../canvas/blankCanvas';
import { contextOf, copyOf } from '../canvas/blankCanvas';
import type { Pictures } from '../canvas/markPainter';
import { fontArrived } from '../canvas/markPainter';
import { paintMarks } from '../canvas/paintMarks';
import type { Scenery } from './scenery';

/** A page as it was at a moment, without what was just being drawn. */
interface Dry {
  readonly ground: Canvas;
  readonly picture: Canvas;
  readonly count: number;
  readonly marks: ReadonlyMap<string, Mark>;
  readonly top: Mark | undefined;
  readonly uncovered: readonly string[];
}

/** Draws the pages of a replay: each picture from the one before where only ink has come, which is the most of it. */
export class PlayedPage {
  /** Pages without what was done in the log that is played, by page, paper, width and what is uncovered. */
  private readonly grounds = new Map<string, Promise<Canvas>>();
  /** What was answered on each page, at whatever time. */
  private readonly answered = new Map<string, ReadonlySet<string>>();
  private dry: Dry | undefined;
  /** Patches that are taken away in what is shown. */
  private uncovered: readonly string[] = [];
  private readonly stop: () => void;

  /** `onStale` is told when what was drawn would look otherwise by now. */
  constructor(
    private readonly scenery: Scenery,
    private readonly replay: Replay,
    private readonly onStale: () => void,
  ) {
    this.stop = fontArrived.subscribe(() => {
      this.dry = undefined;
      onStale();
    });
  }

  close(): void {
    this.stop();
  }

  /** Says which patches were taken away at what is shown next; none unless it is said. */
  uncover(patches: readonly string[]): void {
    // The same list again, so that nothing is drawn anew.
    if (patches.join() !== this.uncovered.join()) this.uncovered = patches;
  }

  /** The page of a moment as it was then; undefined where there is none any more. */
  pageOf(moment: ReplayMoment): Page | undefined {
    const now = this.scenery.pageNow(moment.page);
    const then = this.replay.stateAfter(moment).page;
    return now || then ? ({ ...now, ...then, id: moment.page } as Page) : undefined;
  }

  /** The part of the plane that a page takes in its picture, page units. */
  extentOf(page: Page): Rect {
    return this.scenery.extentOf(page);
  }

  /** All that was on a page at a moment and is done, lowest first; what was prepared lies under the rest. */
  marksAt(moment: ReplayMoment): Mark[] {
    return [...this.prepared(moment.page).sort(byOrder), ...this.writtenAt(moment).sort(byOrder)];
  }

  /** All that is seen of a page at a moment and is done, lowest first. */
  shownAt(moment: ReplayMoment): Mark[] {
    return this.marksAt(moment).filter(this.isShown);
  }

  get pictures(): Pictures {
    return this.scenery.pictures;
  }

  /** Draws a moment `width` device pixels wide, whatever has to be fetched for it. Gives nothing where there is no page. */
  async draw(moment: ReplayMoment, width: number): Promise<Canvas | undefined> {
    const page = this.pageOf(moment);
    if (!page) return undefined;
    const ground = await this.groundOf(page, width);
    const marks = this.writtenAt(moment).filter(this.isShown);
    await this.scenery.loadPictures(page, marks);
    const picture = copyOf(ground);
    paintMarks(picture, this.extentOf(page), marks, this.scenery.pictures);
    return picture;
  }

  /** Draws a moment with what is just being drawn onto a canvas, over its ground (`groundOf`). */
  show(canvas: Canvas, moment: ReplayMoment, ground: Canvas): void {
    const page = this.pageOf(moment);
    if (!page) return;
    const dry = this.dryAt(moment, page, ground);
    const { width, height } = dry.picture;
    if (canvas.width !== width || canvas.height !== height) [canvas.width, canvas.height] = [width, height];
    const ctx = contextOf(canvas);
    ctx.setTransform(1, 0, 0, 1, 0, 0);
    ctx.globalCompositeOperation = 'copy';
    ctx.drawImage(dry.picture, 0, 0);
    ctx.globalCompositeOperation = 'source-over';
    paintMarks(canvas, this.extentOf(page), moment.growing, this.scenery.pictures);
  }

  /** A page with its prepared marks, drawn once for each paper and width. */
  groundOf(page: Page, width: number): Promise<Canvas> {
    const key = JSON.stringify([page.id, page.surface, page.width, page.height, width, this.uncovered]);
    let ground = this.grounds.get(key);
    if (!ground) {
      ground = this.drawGround(page, width);
      this.grounds.set(key, ground);
      // What failed once, such as without a connection, is tried again when it is wanted again.
      ground.catch(() => this.grounds.delete(key));
    }
    return ground;
  }

  private async drawGround(page: Page, width: number): Promise<Canvas> {
    const prepared = this.prepared(page.id);
    await this.scenery.loadPictures(page, prepared);
    const picture = await this.scenery.surface(page, width);
    paintMarks(picture, this.extentOf(page), prepared, this.scenery.pictures);
    return picture;
  }

  /** In a class, what was prepared lies under what the class wrote. */
  private prepared(page: string): Mark[] {
    const answered = this.answeredOn(page);
    const all = this.scenery.prepared(page);
    const known = new Set(all.map(({ id }) => id));
    return all.filter(
      (mark) => this.isShown(mark) && !mark.hidden && !isFoldedAway(mark, known) && !answered.has(mark.id),
    );
  }

  /** What is on a page at a moment beside what was prepared and stays: also prepared things, as they were answered by then. */
  private writtenAt(moment: ReplayMoment): Mark[] {
    const { page } = moment;
    const { marks } = this.replay.stateAfter(moment);
    const answered = this.answeredOn(page);
    if (answered.size === 0) return [...marks.values()];
    const space = this.scenery.space?.(page) ?? 'class';
    const things = this.scenery.prepared(page).filter(({ id }) => answered.has(id));
    return [...things, ...marks.values()].filter((mark) => isStanding(mark, space, marks));
  }

  /** What something stands for at any time. */
  private answeredOn(page: string): ReadonlySet<string> {
    let answered = this.answered.get(page);
    if (!answered) {
      const changes = this.replay.between(page, 0, Infinity).flatMap(({ operation }) => operation.changes);
      answered = new Set(
        changes.flatMap((change) => (change.do === 'add' ? (change.mark.standIn?.for ?? []) : [])),
      );
      this.answered.set(page, answered);
    }
    return answered;
  }

  /** What a patch hid and was uncovered is open. */
  private readonly isShown = (mark: Mark): boolean =>
    mark.kind !== 'patch' || !this.uncovered.includes(mark.id);

  private dryAt(moment: ReplayMoment, page: Page, ground: Canvas): Dry {
    const { marks } = this.replay.stateAfter(moment);
    const before = this.dry?.uncovered === this.uncovered ? this.dry : undefined;
    if (before?.ground === ground && before.count === moment.count) return before;
    const fresh = before?.ground === ground ? this.freshInk(before, marks, moment) : undefined;
    if (before && fresh) {
      paintMarks(before.picture, this.extentOf(page), fresh, this.scenery.pictures);
      this.dry = { ...before, count: moment.count, marks, top: fresh.at(-1) ?? before.top };
      return this.dry;
    }
    const shown = this.writtenAt(moment).filter(this.isShown).sort(byOrder);
    const picture = copyOf(ground);
    paintMarks(picture, this.extentOf(page), shown, this.scenery.pictures);
    this.fetchPictures(page, shown);
    this.dry = { ground, picture, count: moment.count, marks, top: shown.at(-1), uncovered: this.uncovered };
    return this.dry;
  }

  /** The marks that came on top since, in their order, where nothing else has happened. */
  private freshInk(before: Dry, marks: Dry['marks'], { page, count }: ReplayMoment): Mark[] | undefined {
    if (count < before.count || marks.size < before.marks.size) return undefined;
    const changes = this.replay
      .between(page, before.count, count)
      .flatMap(({ operation }) => operation.changes);
    const isInk = changes.every(
      (change) => change.do === 'add' && change.mark.kind === 'stroke' && !change.mark.standIn,
    );
    if (!isInk) return undefined;
    const fresh = [...marks.values()].filter(({ id }) => !before.marks.has(id)).sort(byOrder);
    const [lowest] = fresh;
    return lowest && before.top && byOrder(before.top, lowest) > 0 ? undefined : fresh;
  }

  /** Pictures that are not here yet are drawn once they are. */
  private fetchPictures(page: Page, marks: readonly Mark[]): void {
    const missing = marks.filter(
      (mark) => mark.kind === 'picture' && !this.scenery.pictures.get(mark.material),
    );
    if (missing.length === 0) return;
    this.scenery.loadPictures(page, missing).then(
      () => {
        this.dry = undefined;
        this.onStale();
      },
      // Their places stay empty; the next drawing asks for them again.
      () => undefined,
    );
  }
}
