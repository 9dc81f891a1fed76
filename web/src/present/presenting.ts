import { Store } from '@doodla/core/client';

export interface PresentingState {
  /** Nothing but the page, the tools and a slim page turner. */
  on: boolean;
  /** Whether the tools are away too. */
  toolsHidden: boolean;
}

/** Whether the page is presented, in full screen where the browser lets us. */
export class Presenting extends Store<PresentingState> {
  private stopped: (() => void) | undefined;

  constructor(on = false) {
    super({ on, toolsHidden: false });
  }

  /** Sets who is told when presenting is over. */
  onStop(stopped: (() => void) | undefined): void {
    this.stopped = stopped;
  }

  start = (): void => {
    this.patch({ on: true });
    // A browser may refuse; then the page is presented within its window.
    void document.documentElement.requestFullscreen?.().catch(() => undefined);
  };

  stop = (): void => {
    this.set({ on: false, toolsHidden: false });
    this.stopped?.();
    // The browser has left full screen by itself.
    if (document.fullscreenElement) void document.exitFullscreen().catch(() => undefined);
  };

  toggle = (): void => (this.get().on ? this.stop() : this.start());

  toggleTools = (): void => this.patch({ toolsHidden: !this.get().toolsHidden });
}
