import type { Mark, Page } from '@doodla/core';
import { FilmClock, NotedTake, placeAt, stretchesOf } from '@doodla/core/explain';
import type { FilmMoment, Shown } from '@doodla/core/explain';
import type { ReplayMoment } from '@doodla/core/replay';
import { Replay } from '@doodla/core/replay';
import { blankCanvas } from '../canvas/blankCanvas';
import { needFace } from '../canvas/faces';
import { paintShown } from '../replay/paintShown';
import { PlayedPage } from '../replay/playedPage';
import type { Scenery } from '../replay/scenery';
import type { FilmPlan } from './filmPlan';
import { paintCaption, paintHold } from './filmWords';

const GROUND = '#16241f';
/** Dots are as large as in a window of this height. */
const USUAL_LINES = 720;

/** The picture of a film, drawn from the marks at any of its times. */
export class FilmPicture {
  readonly canvas: OffscreenCanvas;
  readonly clock: FilmClock;
  readonly replay: Replay;
  private readonly ctx: OffscreenCanvasRenderingContext2D;
  private readonly sheet = blankCanvas(1, 1);
  private readonly played: PlayedPage;
  private readonly shown: ReadonlyMap<string, NotedTake>;
  /** Marks whose pictures and letters are here. */
  private readonly ready = new WeakSet<Mark>();
  /** The page and the number of its steps for which all is here. */
  private fetched = '';
  private last = '';
  /** The size of the page round which the ground is there already. */
  private clear = '';

  constructor(
    private readonly plan: FilmPlan,
    private readonly scenery: Scenery,
  ) {
    const { recorded, hidden, played, noted, holds, lines } = plan;
    this.canvas = new OffscreenCanvas((lines * 16) / 9, lines);
    this.ctx = this.canvas.getContext('2d', { alpha: false })!;
    this.replay = new Replay(recorded, {
      counts: ({ id }) => !hidden.has(id),
      leads: () => true,
      longestPause: Infinity,
      parts: stretchesOf(played),
    });
    this.clock = new FilmClock(this.replay.length, holds);
    this.played = new PlayedPage(scenery, this.replay, () => (this.last = ''));
    this.shown = new Map([...noted].map(([take, lines]) => [take, new NotedTake(lines)]));
  }

  /** Draws a time of the film, milliseconds. Gives false where it looks as what was drawn before, and nothing was drawn. */
  async draw(time: number): Promise<boolean> {
    const at = this.clock.at(time);
    const moment = this.replay.at(at.time);
    const shown = this.shownAt(at.time);
    const said = this.plan.isCaptioned ? this.saidAt(at.time) : '';
    const looks = JSON.stringify([looksOf(moment, shown, time), said, at.hold && wordsOf(at)]);
    if (looks === this.last) return false;
    await needFace('andika');
    const page = moment && this.played.pageOf(moment);
    if (moment && page) await this.drawPage(moment, page, shown);
    else this.drawGround();
    if (said) paintCaption(this.ctx, this.canvas, said);
    if (at.hold) paintHold(this.ctx, this.canvas, wordsOf(at));
    if (said || at.hold) this.clear = '';
    this.last = looks;
    return true;
  }

  private drawGround(): void {
    this.clear = '';
    this.ctx.fillStyle = GROUND;
    this.ctx.fillRect(0, 0, this.canvas.width, this.canvas.height);
  }

  private async drawPage(moment: ReplayMoment, page: Page, shown: Shown | undefined): Promise<void> {
    await this.fetchFor(moment, page);
    const extent = this.played.extentOf(page);
    const { width, height } = this.canvas;
    const across = Math.max(1, Math.floor(Math.min(width, (height * extent.width) / extent.height)));
    this.played.uncover(shown?.uncovered ?? []);
    const ground = await this.played.groundOf(page, across);
    this.played.show(this.sheet, moment, ground);
    if (shown) paintShown(this.sheet, page, extent, shown, height / USUAL_LINES);
    const [x, y] = [(width - this.sheet.width) / 2, (height - this.sheet.height) / 2].map(Math.round);
    const clear = `${this.sheet.width} ${this.sheet.height}`;
    if (this.clear !== clear) this.drawGround();
    this.clear = clear;
    this.ctx.fillStyle = '#ffffff';
    this.ctx.fillRect(x!, y!, this.sheet.width, this.sheet.height);
    this.ctx.drawImage(this.sheet, x!, y!);
  }

  private async fetchFor(moment: ReplayMoment, page: Page): Promise<void> {
    const step = `${moment.page} ${moment.count}`;
    if (step === this.fetched) return;
    const fresh = this.played
      .marksAt(moment)
      .filter((mark) => mark.kind !== 'stroke' && !this.ready.has(mark));
    if (fresh.length > 0) await this.scenery.loadPictures(page, fresh);
    fresh.forEach((mark) => this.ready.add(mark));
    this.fetched = step;
  }

  private shownAt(time: number): Shown | undefined {
    const place = placeAt(this.plan.played, time);
    return place && this.shown.get(place.take)?.at(place.from);
  }

  private saidAt(time: number): string {
    const said = this.plan.cues.filter(({ from, to }) => time >= from && time < to);
    return said.map(({ text }) => text).join('\n');
  }
}

/** Told apart from what looks otherwise; what fades or trails looks otherwise at each time. */
function looksOf(moment: ReplayMoment | undefined, shown: Shown | undefined, time: number): unknown[] {
  const isMoving = shown && (shown.wisps.length > 0 || shown.points.some(({ trail }) => trail.length > 1));
  return [
    moment && [moment.page, moment.count, moment.growing.map(({ points }) => points.at(-1))],
    shown && [shown.focus, shown.uncovered, shown.points.map(({ who, trail }) => [who, trail.at(-1)?.x])],
    isMoving && time,
  ];
}

/** What stands over a film that stands still. */
function wordsOf({ hold, left }: FilmMoment): { text: string; left: number | undefined } {
  return { text: hold!.text, left: hold!.isCounted ? Math.ceil(left! / 1000) : undefined };
}
