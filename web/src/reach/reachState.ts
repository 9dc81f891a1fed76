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
  /** Whether it was folded before it was folded for now. */
  private foldedBefore: boolean | undefined;

  constructor() {
    const stored = localStorage.getItem(KEY);
    super(
      stored === null
        ? { side: 'left', folded: false, floating: undefined }
        : (JSON.parse(stored) as ReachState),
    );
    this.subscribe(() => {
      const { folded, ...rest } = this.get();
      localStorage.setItem(KEY, JSON.stringify({ ...rest, folded: this.foldedBefore ?? folded }));
    });
  }

  swapSide = (): void =>
    this.patch({ side: this.get().side === 'left' ? 'right' : 'left', floating: undefined });

  /** Folds it until what is returned is called; how it was before is what a reload comes back to. */
  foldForNow(): () => void {
    const { folded } = this.get();
    this.foldedBefore = folded;
    this.patch({ folded: true });
    return () => {
      this.foldedBefore = undefined;
      this.patch({ folded });
    };
  }

  toggleFold = (): void => this.patch({ folded: !this.get().folded });

  /** Puts it where it was dropped: near an edge it docks there. */
  drop(x: number, y: number, width: number, roomWidth: number): void {
    const edge = 48;
    if (x < edge) this.patch({ side: 'left', floating: undefined });
    else if (x + width > roomWidth - edge) this.patch({ side: 'right', floating: undefined });
    else this.patch({ side: x + width / 2 < roomWidth / 2 ? 'left' : 'right', floating: { x, y } });
  }
}
