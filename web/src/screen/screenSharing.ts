import { MAX_VIEW_PICTURES, SCREEN } from '@doodla/core';
import { Store } from '@doodla/core/client';
import type { Desk } from '../desk/desk';
import type { Presenter, ShowingDesk } from './presenter';
import type { ScreenViewer } from './screenViewer';
import type { SourceKind } from './openSource';
import type { ScreenSource } from './sources';

const LAST_KIND = 'doodla.shown';

/** Shows this device's screen to the class, or what somebody else shows; what does it comes when it is needed. */
export class ScreenSharing {
  /** Set while this device shows its screen. */
  readonly presenter = new Store<Presenter | undefined>(undefined);
  private viewer: Promise<ScreenViewer> | undefined;
  /** The page whose last picture was put back. */
  private restored: string | undefined;

  constructor(private readonly desk: ShowingDesk & Pick<Desk, 'classroom' | 'target'>) {}

  /** What was shown last in this tab, also before it was loaded anew. */
  get lastKind(): SourceKind {
    return (sessionStorage.getItem(LAST_KIND) as SourceKind | null) ?? 'screen';
  }

  /** Shows a screen or camera to the class. */
  async present(source: ScreenSource, kind = this.lastKind): Promise<void> {
    sessionStorage.setItem(LAST_KIND, kind);
    const { Presenter: Made } = await import('./presenter');
    const presenter = new Made(this.desk, source, () => this.presenter.set(undefined));
    this.presenter.set(presenter);
    try {
      await presenter.start();
    } catch (error) {
      presenter.close();
      this.desk.tellProblem((error as Error).message);
    }
  }

  /** Stops what somebody else shows; for the teacher. */
  stopOther(): void {
    const { connection, sitting } = this.desk;
    // The server stops what is shown by itself when the connection is gone.
    void connection.request(SCREEN.stop, { sitting }).catch(() => undefined);
  }

  /** Lets a student show their screen, or not. */
  allow(student: string, may: boolean): void {
    const { connection, sitting } = this.desk;
    void connection
      .request(SCREEN.allow, { sitting, student, may })
      .catch((error: Error) => this.desk.tellProblem(error.message));
  }

  /** Takes in what the class's state says of the screen that is shown, wherever it is shown from. */
  follow(): void {
    const { classroom, connection, screen, sitting, target } = this.desk;
    const shown = classroom?.state.get()?.screen ?? undefined;
    const presenter = this.presenter.get();
    if (presenter) {
      if (presenter.hasStarted && shown?.presenter !== target.actor?.id) presenter.close();
      return;
    }
    if (shown?.away && shown.presenter === target.actor?.id) void this.restoreLast(shown.page);
    if (!shown && !this.viewer) return;
    const isShown = (page: string) => classroom?.state.get()?.screen?.page === page;
    this.viewer ??= import('./screenViewer').then(
      ({ ScreenViewer: Made }) => new Made(sitting!, connection, screen, isShown),
    );
    const live = screen.state.get();
    // The class turns to another view before the first picture of it has come.
    if (shown && live && live.page !== shown.page)
      screen.set({ page: shown.page, panes: shown.panes, certain: live.certain });
    // Nothing comes any more; what was kept lies where it was seen last.
    if (shown?.away && !live) screen.set({ page: shown.page, panes: shown.panes, certain: true });
    if (shown) return;
    screen.set(undefined);
    void this.viewer.then((viewer) => viewer.reset());
  }

  /** Puts what was seen last, before this page was loaded anew, under its view, so that everybody sees it. */
  private async restoreLast(page: string): Promise<void> {
    if (this.restored === page) return;
    this.restored = page;
    const { lastPicture, forgetLast } = await import('./lastPicture');
    const last = await lastPicture();
    const { connection, pages, sitting } = this.desk;
    const surface = pages.get().find(({ id }) => id === page)?.surface;
    if (last?.sitting !== sitting || last?.page !== page || surface?.kind !== 'view') return;
    try {
      const material = await this.desk.upload(last.blob);
      const pictures = [...surface.pictures, { ...last.place, material }].slice(-MAX_VIEW_PICTURES);
      await connection.request(SCREEN.keep, { sitting, page, pictures });
      await forgetLast();
    } catch (error) {
      this.desk.tellProblem((error as Error).message);
    }
  }

  close(): void {
    this.presenter.get()?.close();
    void this.viewer?.then((viewer) => viewer.close());
  }
}
