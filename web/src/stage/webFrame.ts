import type { Change, Page } from '@doodla/core';
import { MAX_PAGE_SIDE } from '@doodla/core';
import type { Desk } from '../desk/desk';
import type { View } from '../canvas/view';
import { WebText } from '../canvas/webText';
import type { PageActions } from '../desk/pageActions';
import type { WebPages } from '../canvas/webPages';
import { t } from '../words';

/** What a web page needs of the desk it is shown on. */
type WebDesk = Pick<Desk, 'isTeacher' | 'tellProblem' | 'page' | 'target' | 'targetMarks'> & {
  pageActions: Pick<PageActions, 'setHeight'>;
  webPages: Pick<WebPages, 'html'>;
};

/** A height that differs by less is the same; fractions of a line are rounded unlike. */
const SAME_HEIGHT = 2;

/**
 * A web page under the canvases, in a frame without scripts, laid out at the page's width whatever
 * the window is like, and moved and enlarged with the page.
 */
export class WebFrame {
  private readonly frame = document.createElement('iframe');
  private material: string | undefined;
  /** The copy that the frame has loaded. */
  private loaded: string | undefined;
  /** Whether its height has been looked at since. */
  private measured = false;
  private shown = false;
  private page: Page | undefined;
  private textOfPage: WebText | undefined;

  constructor(
    host: HTMLElement,
    private readonly desk: WebDesk,
    private readonly onShown: () => void,
  ) {
    this.frame.setAttribute('sandbox', 'allow-same-origin');
    this.frame.title = t('stage.webPage');
    this.frame.tabIndex = -1;
    // Its words are read out with the marks among them (Underlays.readOut).
    this.frame.ariaHidden = 'true';
    this.frame.style.cssText =
      'position:absolute;top:0;left:0;border:0;background:#fff;pointer-events:none;transform-origin:0 0;visibility:hidden;';
    this.frame.addEventListener('load', () => {
      this.loaded = this.material;
      this.measured = false;
      this.textOfPage = undefined;
      if (this.shown) this.laidOut();
    });
    host.prepend(this.frame);
  }

  show(page: Page): void {
    const material = page.surface.kind === 'web' ? page.surface.material : undefined;
    this.shown = material !== undefined;
    this.frame.style.visibility = this.shown ? '' : 'hidden';
    if (material === undefined) return;
    this.lay(page, material);
    if (this.loaded !== material) return;
    if (this.measured) this.onShown();
    else this.laidOut();
  }

  /** Loads and lays out a page that may be turned to next, unless another is being looked at. */
  prepare(page: Page): void {
    if (!this.shown && page.surface.kind === 'web') this.lay(page, page.surface.material);
  }

  setView({ scale, x, y }: View): void {
    this.frame.style.transform = `translate(${x}px, ${y}px) scale(${scale})`;
  }

  /** The words of the shown page; undefined while there is none. */
  get text(): WebText | undefined {
    const inside = this.frame.contentDocument;
    if (!this.shown || !inside?.body) return undefined;
    this.textOfPage ??= new WebText(inside);
    return this.textOfPage;
  }

  destroy(): void {
    this.frame.remove();
  }

  /** Puts marked words where they stand now, after the page was fetched anew or is laid out otherwise here. */
  private findAgain(page: Page): void {
    const { target, targetMarks } = this.desk;
    if (!targetMarks || page.id !== this.desk.page?.id) return;
    const changes = targetMarks.all().flatMap((mark): Change[] => {
      const found = mark.kind === 'quote' ? this.text?.find(mark) : undefined;
      if (mark.kind !== 'quote' || !found || isNear(found.rects, mark.rects)) return [];
      const { rects, start, prefix, suffix } = found;
      return [{ do: 'patch', mark: mark.id, set: { rects, start, prefix, suffix } }];
    });
    if (changes.length > 0) target.perform(changes);
  }

  private lay(page: Page, material: string): void {
    this.page = page;
    this.frame.style.width = `${page.width}px`;
    this.frame.style.height = `${page.height}px`;
    if (material === this.material) return;
    this.material = material;
    this.desk.webPages.html(material).then(
      (html) => {
        if (this.material === material) this.frame.srcdoc = html;
      },
      (error: Error) => this.desk.tellProblem(error.message),
    );
  }

  private laidOut(): void {
    const { page, desk } = this;
    const inside = this.frame.contentDocument?.documentElement;
    if (!page || !inside) return;
    this.measured = true;
    inside.style.overflow = 'hidden';
    this.onShown();
    if (!desk.isTeacher) return;
    // Measured in a low frame, since a page is never lower than its frame.
    this.frame.style.height = '10px';
    const height = Math.min(MAX_PAGE_SIDE, Math.max(100, inside.scrollHeight));
    this.frame.style.height = `${page.height}px`;
    if (Math.abs(height - page.height) > SAME_HEIGHT) desk.pageActions.setHeight(page.id, height);
    this.findAgain(page);
  }
}

/** Whether words lie where they were, but for rounding. */
function isNear(a: readonly number[], b: readonly number[]): boolean {
  return a.length === b.length && a.every((value, i) => Math.abs(value - b[i]!) < 3);
}
