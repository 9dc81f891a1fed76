import { Store } from '@doodla/core/client';

/** What lies beside the tools. */
export type SheetName = 'options' | 'focus' | 'picture' | 'list' | 'wipe';

interface HolderState {
  side: 'left' | 'right';
  folded: boolean;
  /** How far from the top of the window, CSS pixels. */
  y: number;
}

/** Where the tools lie, the same on every page. */
export class HolderPlace {
  readonly state: Store<HolderState>;

  constructor(kept: Partial<HolderState> = {}) {
    this.state = new Store({ side: 'left', folded: false, y: 40, ...kept });
  }

  swap = (): void => {
    this.state.patch({ side: this.state.get().side === 'left' ? 'right' : 'left' });
  };

  toggleFold = (): void => {
    this.state.patch({ folded: !this.state.get().folded });
  };

  /** Drops them at a place of a window of so many pixels. */
  drop(x: number, y: number, width: number): void {
    this.state.patch({ side: x < width / 2 ? 'left' : 'right', y: Math.max(0, Math.round(y) - 8) });
  }
}
