import { SCREEN } from '@doodla/core';
import { Store } from '../live/store';
import type { Workspace } from '../workspace/workspace';
import type { Presenter } from './presenter';
import type { ScreenViewer } from './screenViewer';
import type { ScreenSource } from './sources';

/** Shows this device's screen to the class, or what somebody else shows; what does it comes when it is needed. */
export class ScreenSharing {
  /** Set while this device shows its screen. */
  readonly presenter = new Store<Presenter | undefined>(undefined);
  private viewer: Promise<ScreenViewer> | undefined;

  constructor(private readonly workspace: Workspace) {}

  /** Shows a screen or camera to the class. */
  async present(source: ScreenSource): Promise<void> {
    const { Presenter: Made } = await import('./presenter');
    const presenter = new Made(this.workspace, source, () => this.presenter.set(undefined));
    this.presenter.set(presenter);
    try {
      await presenter.start();
    } catch (error) {
      presenter.close();
      this.workspace.onProblem((error as Error).message);
    }
  }

  /** Stops what somebody else shows; for the teacher. */
  stopOther(): void {
    const { connection, sitting } = this.workspace;
    // The server stops what is shown by itself when the connection is gone.
    void connection.request(SCREEN.stop, { sitting }).catch(() => undefined);
  }

  /** Lets a student show their screen, or not. */
  allow(student: string, may: boolean): void {
    const { connection, sitting } = this.workspace;
    void connection
      .request(SCREEN.allow, { sitting, student, may })
      .catch((error: Error) => this.workspace.onProblem(error.message));
  }

  /** Takes in what the class's state says of the screen that is shown, wherever it is shown from. */
  follow(): void {
    const { classroom, connection, screen, sitting, target } = this.workspace;
    const shown = classroom?.state.get()?.screen ?? undefined;
    const presenter = this.presenter.get();
    if (presenter) {
      if (presenter.hasStarted && shown?.presenter !== target.actor?.id) presenter.close();
      return;
    }
    if (!shown && !this.viewer) return;
    const isShown = (page: string) => classroom?.state.get()?.screen?.page === page;
    this.viewer ??= import('./screenViewer').then(
      ({ ScreenViewer: Made }) => new Made(sitting!, connection, screen, isShown),
    );
    const live = screen.state.get();
    // The class turns to another view before the first picture of it has come.
    if (shown && live && live.page !== shown.page)
      screen.set({ page: shown.page, panes: shown.panes, certain: live.certain });
    if (shown) return;
    screen.set(undefined);
    void this.viewer.then((viewer) => viewer.reset());
  }

  close(): void {
    this.presenter.get()?.close();
    void this.viewer?.then((viewer) => viewer.close());
  }
}
