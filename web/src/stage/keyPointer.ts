import { Store } from '@doodla/core/client';
import type { RunningGesture } from '../desk/gesture';
import type { Glass } from '../desk/glass';
import { ARROWS } from '../ui/arrowKeys';

/** How far an arrow key moves the pointer, CSS pixels; with Shift for the last bit. */
const STEP = 12;
const SMALL_STEP = 2;

export interface KeyPointerState {
  /** In the window, CSS pixels. */
  x: number;
  y: number;
  down: boolean;
}

/** A pointer that is moved by the arrow keys and put down by Space, so that all tools work without a hand on the glass. */
export class KeyPointer {
  readonly state = new Store<KeyPointerState | undefined>(undefined);
  private gesture: RunningGesture | undefined;
  private downAt = 0;

  constructor(private readonly glass: Pick<Glass, 'host' | 'toPage' | 'begin' | 'hover'>) {}

  toggle(): void {
    if (this.state.get()) return this.off();
    const { clientWidth, clientHeight } = this.glass.host;
    this.state.set({ x: clientWidth / 2, y: clientHeight / 2, down: false });
  }

  off(): void {
    this.gesture?.cancel();
    this.gesture = undefined;
    this.state.set(undefined);
  }

  /** Takes a key if it means something while the pointer is on. Returns whether it did. */
  take(event: Pick<KeyboardEvent, 'key' | 'shiftKey' | 'ctrlKey' | 'metaKey'>): boolean {
    const state = this.state.get();
    if (!state || event.ctrlKey || event.metaKey) return false;
    const direction = ARROWS[event.key];
    if (direction) this.move(state, direction, event.shiftKey ? SMALL_STEP : STEP);
    else if (event.key === ' ' || event.key === 'Enter') this.press(state);
    else if (event.key === 'Escape') this.off();
    else return false;
    return true;
  }

  private move(state: KeyPointerState, [dx, dy]: readonly [number, number], step: number): void {
    const { clientWidth, clientHeight } = this.glass.host;
    const x = Math.min(clientWidth, Math.max(0, state.x + dx * step));
    const y = Math.min(clientHeight, Math.max(0, state.y + dy * step));
    this.state.set({ ...state, x, y });
    this.gesture?.move([this.penPoint(x, y)]);
  }

  private press(state: KeyPointerState): void {
    if (this.gesture) {
      this.gesture.end();
      this.gesture = undefined;
    } else {
      this.downAt = performance.now();
      this.gesture = this.glass.begin(this.penPoint(state.x, state.y), false, false);
    }
    this.state.set({ ...state, down: this.gesture !== undefined });
  }

  private penPoint(x: number, y: number) {
    const time = performance.now() - this.downAt;
    return {
      ...this.glass.toPage(x, y),
      pressure: 0.5,
      time,
      steady: false,
      centred: false,
      byKeys: true as const,
    };
  }
}
