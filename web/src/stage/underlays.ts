import type { Page } from '@doodla/core';
import { PageWords } from '@doodla/core';
import { Signal, Store } from '@doodla/core/client';
import type { View } from '../canvas/view';
import type { WebText } from '../canvas/webText';
import type { MediaFrame } from '../media/mediaFrame';
import type { PageDesk } from '../room/pageDesk';
import type { WebFrame } from './webFrame';
import { t } from '../words';

/** A web page is read out a moment after it shows, up to so many words. */
const READ_OUT_MS = 500;
const MOST_WORDS = 4000;

/** What lies under the canvases because the browser itself has to show it: web pages and recordings. */
export class Underlays {
  /** What plays the recording on a page, once one was shown. */
  readonly recording = new Store<MediaFrame | undefined>(undefined);
  readonly webShown = new Signal();
  readonly recordingChanged = new Signal();
  /** Made when the first web page is shown or may be turned to. */
  private web: WebFrame | undefined;
  private view: View = { scale: 1, x: 0, y: 0 };
  private readingOut: ReturnType<typeof setTimeout> | undefined;

  constructor(
    private readonly host: HTMLElement,
    private readonly desk: PageDesk,
  ) {
    this.webShown.subscribe(() => {
      clearTimeout(this.readingOut);
      this.readingOut = setTimeout(() => this.readOut(), READ_OUT_MS);
    });
  }

  /** The words of the web page that is shown. */
  get words(): WebText | undefined {
    return this.web?.text;
  }

  setView(view: View): void {
    this.view = view;
    this.web?.setView(view);
    this.recording.get()?.setView(view);
  }

  /** Shows what a page has of it, and nothing where it has none. */
  show(page: Page): void {
    const failed = () => this.desk.tellProblem(t('stage.thisPageCouldNotBe'));
    this.showWeb(page).catch(failed);
    this.showRecording(page).catch(failed);
    this.prefetchWeb(page);
  }

  destroy(): void {
    clearTimeout(this.readingOut);
    this.web?.destroy();
    this.recording.get()?.destroy();
  }

  private async showWeb(page: Page): Promise<void> {
    if (this.web || page.surface.kind !== 'web') return this.web?.show(page);
    const web = await this.webFrame();
    if (this.desk.page) web.show(this.desk.page);
  }

  /** Says where the words of a web page are, for those who hear the page with the marks among its words. */
  private readOut(): void {
    const { page, surfaces } = this.desk;
    if (page?.surface.kind !== 'web' || !this.words) return;
    surfaces.setWords(page, new PageWords(this.words.placedWords(MOST_WORDS)));
  }

  private async webFrame(): Promise<WebFrame> {
    const { WebFrame: Frame } = await import('./webFrame');
    this.web ??= new Frame(this.host, this.desk, this.webShown.tell);
    this.web.setView(this.view);
    return this.web;
  }

  /** Lays out a web page that may be turned to next, and fetches another. */
  private prefetchWeb(page: Page): void {
    const pages = this.desk.pages.get();
    const at = pages.findIndex(({ id }) => id === page.id);
    const [next, ...others] = [pages[at + 1], pages[at - 1]].filter((near) => near?.surface.kind === 'web');
    // Made ahead; when it is turned to, a failure is told there.
    if (next)
      this.webFrame()
        .then((web) => web.prepare(next))
        .catch(() => undefined);
    for (const { surface } of others as Page[])
      // Fetched ahead; when it is turned to, a failure is told there.
      if (surface.kind === 'web') void this.desk.room.webPages.html(surface.material).catch(() => undefined);
  }

  private async showRecording(page: Page): Promise<void> {
    if (page.surface.kind !== 'media') return this.recording.get()?.show(page);
    const { MediaFrame: Frame } = await import('../media/mediaFrame');
    if (!this.recording.get())
      this.recording.set(new Frame(this.host, this.desk, this.recordingChanged.tell));
    const recording = this.recording.get()!;
    recording.setView(this.view);
    if (this.desk.page) recording.show(this.desk.page);
  }
}
