import type { Mark, Page } from '@doodla/core';
import { FilmClock, NotedTake, placeAt, stretchesOf } from '@doodla/core/explain';
import type { FilmMoment, Shown } from '@doodla/core/explain';
import type { ReplayMoment } from '@doodla/core/replay';
import { Replay } from '@doodla/core/replay';
import type { VideoSample } from 'mediabunny';
import { blankCanvas } from '../canvas/blankCanvas';
import { needFace } from '../canvas/faces';
import type { LivePicture } from '../replay/livePage';
import { liveExtent, showLive } from '../replay/livePage';
import { paintShown } from '../replay/paintShown';
import { PlayedPage } from '../replay/playedPage';
import type { Scenery } from '../replay/scenery';
import type { FilmPlan } from './filmPlan';
import { FilmVideo } from './filmVideo';
import { paintCaption, paintHold } from './filmWords';

const GROUND = '#16241f';
/** How wide the small picture in the corner is, how round and how far from the edge; parts of the film's width. */
const FACE = { width: 0.16, round: 0.008, margin: 0.012 } as const;
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
  private readonly live: FilmVideo;
  private readonly face: FilmVideo;

  constructor(
    private readonly plan: FilmPlan,
    private readonly scenery: Scenery,
  ) {
    const { recorded, hidden, played, noted, holds, lines, videos } = plan;
    this.canvas = new OffscreenCanvas((lines * 16) / 9, lines);
    this.ctx = this.canvas.getContext('2d', { alpha: false })!;
    this.replay = new Replay(recorded, {
      counts: ({ id }) => !hidden.has(id),
      leads: () => true,
      longestPause: Infinity,
      parts: stretchesOf(played),
    });
    this.live = new FilmVideo(videos.video);
    this.face = new FilmVideo(videos.face);
    this.clock = new FilmClock(this.replay.length, holds);
    this.played = new PlayedPage(scenery, this.replay, () => (this.last = ''));
    this.shown = new Map([...noted].map(([take, lines]) => [take, new NotedTake(lines)]));
  }

  /** Draws a time of the film, milliseconds. Gives false where it looks as what was drawn before, and nothing was drawn. */
  async draw(time: number): Promise<boolean> {
    const at = this.clock.at(time);
    const moment = this.replay.at(at.time);
    const place = placeAt(this.plan.played, at.time);
    const shown = place && this.shown.get(place.take)?.at(place.from);
    const live = place && shown?.live?.page === moment?.page ? await this.live.at(place) : undefined;
    const face = place && (await this.face.at(place));
    const said = this.plan.isCaptioned ? this.saidAt(at.time) : '';
    const films = [live, face].map((film) => film?.timestamp);
    const looks = JSON.stringify([looksOf(moment, shown, time), films, said, at.hold && wordsOf(at)]);
    if (looks === this.last) return false;
    await needFace('andika');
    const page = moment && this.played.pageOf(moment);
    if (moment && page) await this.drawPage(moment, page, shown, live);
    else this.drawGround();
    if (face) paintFace(this.ctx, this.canvas, face);
    if (said) paintCaption(this.ctx, this.canvas, said);
    if (at.hold) paintHold(this.ctx, this.canvas, wordsOf(at));
    if (said || at.hold || face) this.clear = '';
    this.last = looks;
    return true;
  }

  private drawGround(): void {
    this.clear = '';
    this.ctx.fillStyle = GROUND;
    this.ctx.fillRect(0, 0, this.canvas.width, this.canvas.height);
  }

  private async drawPage(
    moment: ReplayMoment,
    page: Page,
    shown: Shown | undefined,
    film: VideoSample | undefined,
  ): Promise<void> {
    await this.fetchFor(moment, page);
    const { width, height } = this.canvas;
    const across = ({ width: w, height: h }: Size) =>
      Math.max(1, Math.floor(Math.min(width, (height * w) / h)));
    this.played.uncover(shown?.uncovered ?? []);
    let extent = this.played.extentOf(page);
    if (film && shown?.live) {
      const draw: LivePicture['draw'] = (ctx, w, h) => film.draw(ctx, 0, 0, w, h);
      const live = { ...shown.live, draw };
      showLive(this.sheet, this.played, moment, { page, live }, across(page));
      extent = liveExtent(page, live);
    } else {
      const ground = await this.played.groundOf(page, across(extent));
      this.played.show(this.sheet, moment, ground);
    }
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

  private saidAt(time: number): string {
    const said = this.plan.cues.filter(({ from, to }) => time >= from && time < to);
    return said.map(({ text }) => text).join('\n');
  }
}

interface Size {
  readonly width: number;
  readonly height: number;
}

/** Whoever explains, in the corner. */
function paintFace(ctx: OffscreenCanvasRenderingContext2D, film: Size, face: VideoSample): void {
  const width = film.width * FACE.width;
  const height = (width * face.displayHeight) / face.displayWidth;
  const margin = film.width * FACE.margin;
  const [x, y] = [film.width - width - margin, film.height - height - margin];
  ctx.save();
  ctx.beginPath();
  ctx.roundRect(x, y, width, height, film.width * FACE.round);
  ctx.clip();
  face.draw(ctx, x, y, width, height);
  ctx.restore();
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
