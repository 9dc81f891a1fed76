import { Store } from '@doodla/core/client';

/** Where sheets and tooltips of the tools open: beside a column, above a strip. */
export type OpensTo = 'left' | 'right' | 'top';

export interface ReachState {
  side: 'left' | 'right';
  folded: boolean;
  /** Distance from the edge and the top where it floats, CSS pixels; undefined while docked. */
  floating: { x: number; y: number } | undefined;
}

const KEY = 'doodla.reach';

/** Where the holder of the tools is, kept in the browser. */
export class Reach extends Store<ReachState> {
  constructor() {
    const stored = localStorage.getItem(KEY);
    super(
      stored === null
        ? { side: 'left', folded: false, floating: undefined }
        : (JSON.parse(stored) as ReachState),
    );
    this.subscribe(() => localStorage.setItem(KEY, JSON.stringify(this.get())));
  }

  swapSide = (): void =>
    this.patch({ side: this.get().side === 'left' ? 'right' : 'left', floating: undefined });

  toggleFold = (): void => this.patch({ folded: !this.get().folded });

  /** Puts it where it was dropped: near an edge it docks there. */
  drop(x: number, y: number, width: number, roomWidth: number): void {
    const edge = 48;
    if (x < edge) this.patch({ side: 'left', floating: undefined });
    else if (x + width > roomWidth - edge) this.patch({ side: 'right', floating: undefined });
    else this.patch({ side: x + width / 2 < roomWidth / 2 ? 'left' : 'right', floating: { x, y } });
  }
}
