import type { Desk } from '../desk/desk';
import type { Glass } from '../desk/glass';

/** Part of the page's width that a band shows, and how far into it writing goes before it moves on. */
const WIDTH = 0.5;
const MOVE_AFTER = 0.7;
/** How much of what was seen is still seen after it has moved on. */
const KEPT = 0.35;
/** How far one line is from the next, part of the band's height. */
const LINE = 0.6;

/** Shows a band of the page, enlarged, and moves it on as the writing comes to its end. */
export class Band {
  private readonly stop: () => void;

  constructor(
    private readonly glass: Pick<Glass, 'visible' | 'zoom' | 'centreOn' | 'setFit' | 'written'>,
    private readonly desk: Pick<Desk, 'page' | 'extentOf'>,
  ) {
    this.stop = glass.written.subscribe(({ x }) => this.written(x));
    const page = this.page;
    if (page) this.showFrom(page.x, page.y);
  }

  /** Begins a new line at the left edge of the page. */
  nextLine(): void {
    const { page } = this;
    const { y, height } = this.glass.visible;
    if (page) this.showFrom(page.x, y + height * LINE);
  }

  /** Shows the whole page again. */
  end(): void {
    this.stop();
    this.glass.setFit('page');
  }

  private get page() {
    const { page } = this.desk;
    return page && this.desk.extentOf(page);
  }

  private written(x: number): void {
    const { page } = this;
    const seen = this.glass.visible;
    if (!page || x < seen.x + seen.width * MOVE_AFTER) return;
    if (x > page.x + page.width - seen.width * (1 - MOVE_AFTER)) this.nextLine();
    else this.showFrom(x - seen.width * KEPT, seen.y);
  }

  private showFrom(x: number, y: number): void {
    const { page, glass } = this;
    if (!page) return;
    const factor = glass.visible.width / (page.width * WIDTH);
    if (Math.abs(factor - 1) > 0.01) glass.zoom(factor);
    const { width, height } = glass.visible;
    glass.centreOn(x + width / 2, y + height / 2);
  }
}
