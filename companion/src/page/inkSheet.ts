import type { Mark, Matrix, Rect } from '@doodla/core';
import { byOrder } from '@doodla/core';
import { blends } from '@web/canvas/blends';
import type { Dot } from '@web/canvas/dotPainter';
import { drawDots } from '@web/canvas/dotPainter';
import type { Pictures } from '@web/canvas/markPainter';
import { drawInk, drawMark } from '@web/canvas/markPainter';
import type { Preview, WetInk } from '@web/canvas/preview';
import type { Host } from './host';
import { Plane } from './plane';

/** A mark with how it lies, the part of the page in which it is seen, and whether it stays in the window while the page scrolls. */
export interface Drawn {
  picture: Mark;
  matrix: Matrix | undefined;
  clip: Rect | undefined;
  stays: boolean;
}

/** What is being drawn now, and who points where; `goesOn`: it changes by itself. */
export interface Wet {
  ink: readonly WetInk[];
  previews: readonly Preview[];
  dots: readonly Dot[];
  goesOn: boolean;
}

/** What there is to be drawn. */
export interface InkSource {
  marks(): readonly Drawn[];
  wet(): Wet;
  /** Parts of the window over which something of the page lies that does not scroll, such as a header. */
  bars(): readonly Rect[];
  pictures: Pictures;
}

/** So much of the window's height is drawn above and below it, so that the page scrolls without a new drawing. */
const BEYOND = 0.5;

/**
 * What is drawn over a page: finished marks on canvases that lie on the page and scroll with it, drawn anew where these do not reach;
 * marks on what stays in the window on one that stays as well; what is being drawn above them. What the page shows through lies in
 * the layer that is blended with it.
 */
export class InkSheet {
  private readonly dry: Plane;
  private readonly dryTint: Plane;
  private readonly still: Plane;
  private readonly stillTint: Plane;
  private readonly wet: Plane;
  private readonly wetTint: Plane;
  /** The part of the page that the canvases cover. */
  private covered: Rect = { x: 0, y: 0, width: 0, height: 0 };
  private frame = 0;
  private isDryStale = true;
  private isWetStale = true;
  /** Lowest first. */
  private pile: readonly Drawn[] = [];
  private hidden: ReadonlySet<string> = new Set();

  constructor(
    { root, tintRoot }: Pick<Host, 'root' | 'tintRoot'>,
    private readonly source: InkSource,
  ) {
    this.dryTint = new Plane(tintRoot, 'dry-tint');
    this.stillTint = new Plane(tintRoot, 'still-tint', true);
    this.wetTint = new Plane(tintRoot, 'wet-tint', true);
    this.dry = new Plane(root, 'dry');
    this.still = new Plane(root, 'still', true);
    this.wet = new Plane(root, 'wet', true);
  }

  /** Marks came, went or changed. */
  renew(): void {
    const before = this.pile;
    this.pile = [...this.source.marks()].sort((a, b) => byOrder(a.picture, b.picture));
    if (!this.isDryStale && isLonger(before, this.pile)) this.addOnTop(this.pile.slice(before.length));
    else this.redraw();
  }

  /** Marks lie elsewhere. */
  redraw(): void {
    this.isDryStale = true;
    this.schedule();
  }

  touchWet(): void {
    this.isWetStale = true;
    this.schedule();
  }

  /** The page has been scrolled: the canvases reach so far, or are laid anew. */
  scrolled(): void {
    const { scrollX: x, scrollY: y, innerHeight } = window;
    const { covered } = this;
    const page = pageElement();
    const isIn =
      x >= covered.x &&
      y >= covered.y &&
      x + page.clientWidth <= covered.x + covered.width + 1 &&
      y + innerHeight <= covered.y + covered.height + 1;
    if (!isIn) this.redraw();
    else this.leaveBarsOut();
  }

  remove(): void {
    cancelAnimationFrame(this.frame);
    for (const { canvas } of this.planes) canvas.remove();
  }

  private get planes(): readonly Plane[] {
    return [this.dryTint, this.stillTint, this.wetTint, this.dry, this.still, this.wet];
  }

  private schedule(): void {
    this.frame ||= requestAnimationFrame(() => {
      this.frame = 0;
      this.draw();
    });
  }

  private draw(): void {
    const wet = this.isWetStale ? this.source.wet() : undefined;
    if (wet) this.hide(wet.previews);
    if (this.isDryStale) this.drawDry();
    if (wet) this.drawWet(wet);
  }

  /** Leaves marks out of the finished ones that are shown in another way for now. */
  private hide(previews: readonly Preview[]): void {
    const hidden = new Set(previews.flatMap((preview) => [...(preview.hidden ?? [])]));
    if (hidden.size === this.hidden.size && [...hidden].every((id) => this.hidden.has(id))) return;
    this.hidden = hidden;
    this.isDryStale = true;
  }

  private drawDry(): void {
    this.isDryStale = false;
    this.lay();
    const shown = this.pile.filter(({ matrix, picture }) => matrix && !this.hidden.has(picture.id));
    for (const plane of [this.dryTint, this.dry, this.stillTint, this.still])
      this.drawOn(
        plane,
        shown.filter((mark) => this.planeOf(mark) === plane),
      );
    this.leaveBarsOut();
  }

  private drawOn(plane: Plane, marks: readonly Drawn[]): void {
    plane.draw(marks.length === 0, (ctx) => {
      for (const mark of marks) this.drawOne(ctx, mark);
    });
  }

  private addOnTop(marks: readonly Drawn[]): void {
    for (const mark of marks) {
      if (!mark.matrix || this.hidden.has(mark.picture.id)) continue;
      this.planeOf(mark).add((ctx) => this.drawOne(ctx, mark));
    }
  }

  private planeOf({ picture, stays }: Drawn): Plane {
    if (blends(picture)) return stays ? this.stillTint : this.dryTint;
    return stays ? this.still : this.dry;
  }

  private drawOne(ctx: CanvasRenderingContext2D, { picture, matrix, clip }: Drawn): void {
    ctx.save();
    if (clip) clipTo(ctx, clip);
    ctx.transform(...(matrix as [number, number, number, number, number, number]));
    drawMark(ctx, picture, this.source.pictures);
    ctx.restore();
  }

  private drawWet({ ink, previews, dots, goesOn }: Wet): void {
    this.isWetStale = false;
    // What is being drawn is drawn anew at each frame, so it lies on no more than the window.
    for (const plane of [this.wet, this.wetTint]) plane.cover(inSight());
    const all = [...ink, ...previews.flatMap((preview) => preview.ink ?? [])];
    const tinted = all.filter(({ style }) => style.nature === 'highlighter');
    const plain = all.filter(({ style }) => style.nature !== 'highlighter');
    const marks = previews.flatMap((preview) => preview.marks ?? []);
    const areas = previews.flatMap(({ area }) => (area ? [area] : []));
    const lets = marks.filter(blends);
    const { pictures } = this.source;
    this.wetTint.draw(tinted.length + lets.length === 0, (ctx) => {
      for (const mark of lets) drawMark(ctx, mark, pictures);
      for (const one of tinted) drawInk(ctx, one);
    });
    this.wet.draw(plain.length + marks.length + areas.length + dots.length === 0, (ctx) => {
      for (const mark of marks) if (!blends(mark)) drawMark(ctx, mark, pictures);
      for (const one of plain) drawInk(ctx, one);
      for (const area of areas) drawArea(ctx, area);
      drawDots(ctx, dots, 1);
    });
    if (goesOn) this.touchWet();
  }

  /** Lays the canvases over what is in sight and a little more, as far as the page goes; they must not make it any larger. */
  private lay(): void {
    for (const { canvas } of this.planes) canvas.style.display = 'none';
    const { scrollX: x, scrollY, innerHeight } = window;
    const page = pageElement();
    const bottom = Math.max(page.scrollHeight, scrollY + page.clientHeight);
    const y = Math.max(0, Math.floor(scrollY - innerHeight * BEYOND));
    const height = Math.min(bottom, Math.ceil(scrollY + innerHeight * (1 + BEYOND))) - y;
    this.covered = { x, y, width: page.clientWidth, height };
    for (const plane of this.planes) plane.cover(plane.still ? inSight() : this.covered);
    // Other sizes have cleared what was wet.
    this.isWetStale = true;
  }

  /** Marks on what scrolls are not seen where something lies over it that does not scroll. */
  private leaveBarsOut(): void {
    const bars = this.pile.length > 0 ? this.source.bars() : [];
    for (const plane of [this.dry, this.dryTint]) plane.leaveOut(bars);
  }
}

const pageElement = () => document.scrollingElement ?? document.documentElement;

/** The part of the page that the window shows. */
function inSight(): Rect {
  return { x: scrollX, y: scrollY, width: pageElement().clientWidth, height: innerHeight };
}

/** Whether a pile is as another was, with more on top. */
function isLonger(before: readonly Drawn[], now: readonly Drawn[]): boolean {
  return now.length > before.length && before.every((drawn, i) => drawn === now[i]);
}

function clipTo(ctx: CanvasRenderingContext2D, { x, y, width, height }: Rect): void {
  ctx.beginPath();
  ctx.rect(x, y, width, height);
  ctx.clip();
}

function drawArea(ctx: CanvasRenderingContext2D, area: readonly number[]): void {
  if (area.length < 4) return;
  ctx.beginPath();
  for (let i = 0; i < area.length; i += 2) ctx.lineTo(area[i]!, area[i + 1]!);
  ctx.lineWidth = 2;
  ctx.setLineDash([6, 5]);
  ctx.strokeStyle = '#7a5600';
  ctx.stroke();
  ctx.setLineDash([]);
  ctx.fillStyle = 'rgb(242 194 48 / 0.18)';
  ctx.fill();
}
