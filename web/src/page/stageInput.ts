import { tiltFromUpright } from '@doodla/core';
import { coalesced } from '../secure/secureOnly';
import type { PenPoint, RunningGesture } from '../tools/gesture';
import type { Stage } from './stage';

interface DownPointer {
  x: number;
  y: number;
  /** Where it went down. */
  from: { x: number; y: number };
  downAt: number;
  gesture: RunningGesture | undefined;
}

const WHEEL_ZOOM = 0.0022;
/** A second finger that comes this soon after the first means to move the page, not to write. */
const PINCH_MS = 250;
const LINE_HEIGHT = 16;
/** Touches broader than this are palms; CSS pixels. */
const PALM_WIDTH = 60;
/** A swipe goes at least so far across, CSS pixels, in at most so long. */
const SWIPE = { distance: 80, ms: 700 };
/** Farther than this is no tap; CSS pixels. */
const TAP_REACH = 6;
/** So long after the pen was last there, touches are taken for the hand that holds it. */
const PALM_MS = 400;

/** Turns the pointers and the wheel over the page into gestures, panning and zooming. */
export class StageInput {
  private readonly down = new Map<number, DownPointer>();
  private pinching = false;
  private spaceHeld = false;
  /** When a pen was last on the glass; undefined where none has been. */
  private penAt: number | undefined;
  private readonly abort = new AbortController();

  constructor(
    private readonly host: HTMLElement,
    private readonly stage: Stage,
  ) {
    const { signal } = this.abort;
    host.addEventListener('pointerdown', (event) => this.pointerDown(event), { signal });
    host.addEventListener('pointermove', (event) => this.pointerMove(event), { signal });
    host.addEventListener('pointerup', (event) => this.pointerUp(event, 'end'), { signal });
    host.addEventListener('pointercancel', (event) => this.pointerUp(event, 'cancel'), { signal });
    host.addEventListener('pointerleave', () => this.stage.hover(undefined), { signal });
    host.addEventListener('wheel', (event) => this.wheel(event), { signal, passive: false });
    host.addEventListener('contextmenu', (event) => event.preventDefault(), { signal });
    window.addEventListener(
      'keydown',
      (event) => (this.spaceHeld = event.code === 'Space' || this.spaceHeld),
      { signal },
    );
    window.addEventListener('keyup', (event) => (this.spaceHeld = event.code !== 'Space' && this.spaceHeld), {
      signal,
    });
    window.addEventListener('blur', () => (this.spaceHeld = false), { signal });
  }

  destroy(): void {
    this.abort.abort();
  }

  private pointerDown(event: PointerEvent): void {
    if (event.button > 1 && event.pointerType !== 'pen') return;
    if (event.pointerType === 'touch' && this.isPalm(event)) return;
    if (event.pointerType === 'pen') this.penAt = event.timeStamp;
    this.host.setPointerCapture(event.pointerId);
    const from = this.inWindow(event);
    const pointer: DownPointer = { ...from, from, downAt: event.timeStamp, gesture: undefined };
    this.down.set(event.pointerId, pointer);
    if (event.pointerType === 'touch' && this.startsPinch(event)) return this.startPinch();
    if (this.pinching || this.movesPage(event)) return;
    const isPen = event.pointerType === 'pen';
    // Bit 2 is the barrel button, bit 32 the eraser end (Pointer Events 3, §5.1.1).
    const eraser = isPen && (event.buttons & (2 | 32)) !== 0;
    pointer.gesture = this.stage.begin(this.pointOf(event, pointer), isPen, eraser);
  }

  private pointerMove(event: PointerEvent): void {
    const pointer = this.down.get(event.pointerId);
    if (event.pointerType === 'pen' && this.penAt !== undefined) this.penAt = event.timeStamp;
    if (!pointer) {
      const { x, y } = this.inWindow(event);
      return this.stage.hover(this.stage.toPage(x, y));
    }
    if (pointer.gesture) {
      pointer.gesture.move(coalesced(event).map((each) => this.pointOf(each, pointer)));
      return;
    }
    const before = this.pinchShape();
    const { x, y } = this.inWindow(event);
    const [dx, dy] = [x - pointer.x, y - pointer.y];
    Object.assign(pointer, { x, y });
    if (!this.pinching) return this.stage.pan(dx, dy);
    const after = this.pinchShape();
    if (!before || !after) return;
    this.stage.zoom(after.spread / before.spread, after.centre);
    this.stage.pan(after.centre.x - before.centre.x, after.centre.y - before.centre.y);
  }

  private pointerUp(event: PointerEvent, how: 'end' | 'cancel'): void {
    const pointer = this.down.get(event.pointerId);
    this.down.delete(event.pointerId);
    const pinched = this.pinching;
    if (this.down.size === 0) this.pinching = false;
    if (pointer?.gesture) pointer.gesture[how]();
    else if (pointer && how === 'end') this.tapOrSwipe(event, pointer, pinched);
  }

  /** A short touch uncovers what is under it; a quick one across, by one finger or two, turns the page. */
  private tapOrSwipe(event: PointerEvent, pointer: DownPointer, pinched: boolean): void {
    const { x, y } = this.inWindow(event);
    const [dx, dy] = [x - pointer.from.x, y - pointer.from.y];
    if (!pinched && Math.hypot(dx, dy) < TAP_REACH) this.stage.uncover(this.stage.toPage(x, y));
    const quick = event.timeStamp - pointer.downAt < SWIPE.ms;
    const across = Math.abs(dx) > SWIPE.distance && Math.abs(dx) > 2 * Math.abs(dy);
    // Of two fingers the second to leave counts, so that one swipe is one turn.
    if (event.pointerType === 'touch' && quick && across && this.down.size === 0)
      this.stage.swipe(dx < 0 ? 1 : -1);
  }

  private wheel(event: WheelEvent): void {
    event.preventDefault();
    const unit = event.deltaMode === WheelEvent.DOM_DELTA_LINE ? LINE_HEIGHT : 1;
    if (event.ctrlKey || event.metaKey) {
      this.stage.zoom(Math.exp(-event.deltaY * unit * WHEEL_ZOOM), this.inWindow(event));
    } else if (event.shiftKey && event.deltaX === 0) this.stage.pan(-event.deltaY * unit, 0);
    else this.stage.pan(-event.deltaX * unit, -event.deltaY * unit);
  }

  /** Whether this pointer moves the page instead of working on it. */
  private movesPage(event: PointerEvent): boolean {
    if (event.button === 1 || this.spaceHeld || !this.stage.writing) return true;
    return event.pointerType === 'touch' && this.penAt !== undefined && this.stage.finger === 'move';
  }

  /** A hand that rests on the glass: a broad touch, or any while the pen is at work. */
  private isPalm(event: PointerEvent): boolean {
    if (Math.max(event.width, event.height) > PALM_WIDTH) return true;
    if (this.penAt === undefined) return false;
    return this.stage.finger === 'nothing' || event.timeStamp - this.penAt < PALM_MS;
  }

  private startsPinch(event: PointerEvent): boolean {
    if (this.down.size !== 2) return false;
    const [first] = this.down.values();
    return !first!.gesture || event.timeStamp - first!.downAt < PINCH_MS;
  }

  private startPinch(): void {
    this.pinching = true;
    for (const pointer of this.down.values()) {
      pointer.gesture?.cancel();
      pointer.gesture = undefined;
    }
  }

  /** Middle of and distance between the first two fingers. */
  private pinchShape(): { centre: { x: number; y: number }; spread: number } | undefined {
    const [a, b] = this.down.values();
    if (!a || !b) return undefined;
    return {
      centre: { x: (a.x + b.x) / 2, y: (a.y + b.y) / 2 },
      spread: Math.max(1, Math.hypot(a.x - b.x, a.y - b.y)),
    };
  }

  private inWindow(event: MouseEvent): { x: number; y: number } {
    const box = this.host.getBoundingClientRect();
    return { x: event.clientX - box.left, y: event.clientY - box.top };
  }

  private pointOf(event: PointerEvent, pointer: DownPointer): PenPoint {
    const { x, y } = this.inWindow(event);
    const pressure = event.pointerType === 'pen' ? event.pressure : 0.5;
    const time = Math.max(0, event.timeStamp - pointer.downAt);
    const keys = { steady: event.shiftKey, centred: event.altKey };
    return {
      ...this.stage.toPage(x, y),
      pressure,
      tilt: tiltFromUpright(event.tiltX, event.tiltY),
      time,
      ...keys,
    };
  }
}
