import { tiltFromUpright } from '@doodla/core';
import { coalesced } from '../secure/secureOnly';
import type { PenPoint, RunningGesture } from '../desk/gesture';
import type { Glass } from '../desk/glass';
import type { Contact } from './touchRoles';
import { TouchRoles } from './touchRoles';

/** What of a glass pointers need. */
type Touched = Pick<
  Glass,
  'begin' | 'finger' | 'halvesAt' | 'hover' | 'pan' | 'swipe' | 'toPage' | 'uncover' | 'writing' | 'zoom'
>;

interface DownPointer {
  x: number;
  y: number;
  /** Where it went down. */
  from: { x: number; y: number };
  downAt: number;
  gesture: RunningGesture | undefined;
  /** Whether it has begun to move the page. */
  pans?: true;
}

const WHEEL_ZOOM = 0.0022;
const LINE_HEIGHT = 16;
/** A swipe goes at least so far across, CSS pixels, in at most so long. */
const SWIPE = { distance: 80, ms: 700 };
/** Farther than this is no tap; CSS pixels. */
const TAP_REACH = 6;
/** A finger that moves the page, and so may be a hand that rests, does so from this far on; CSS pixels. */
const LEAST_PAN = 8;

/** Turns the pointers and the wheel over the page into gestures, panning and zooming. */
export class StageInput {
  private readonly down = new Map<number, DownPointer>();
  private pinching = false;
  private spaceHeld = false;
  private readonly roles = new TouchRoles();
  private readonly abort = new AbortController();

  constructor(
    private readonly host: HTMLElement,
    private readonly glass: Touched,
  ) {
    const { signal } = this.abort;
    host.addEventListener('pointerdown', (event) => this.pointerDown(event), { signal });
    host.addEventListener('pointermove', (event) => this.pointerMove(event), { signal });
    host.addEventListener('pointerup', (event) => this.pointerUp(event, 'end'), { signal });
    host.addEventListener('pointercancel', (event) => this.pointerUp(event, 'cancel'), { signal });
    // Whatever takes the pointer away: what has been drawn is kept.
    host.addEventListener('lostpointercapture', (event) => this.pointerUp(event, 'end'), { signal });
    host.addEventListener('pointerleave', () => this.glass.hover(undefined), { signal });
    host.addEventListener('wheel', (event) => this.wheel(event), { signal, passive: false });
    host.addEventListener('contextmenu', (event) => event.preventDefault(), { signal });
    // A quick stroke would go on as a fling, and a browser takes the next tap, on any button, for what stops it.
    host.addEventListener('touchstart', (event) => event.preventDefault(), { signal, passive: false });
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
    const { role, takenBack } = this.roles.down(this.contactOf(event), {
      restless: this.glass.finger === 'nothing',
      halvesAt: this.glass.halvesAt,
    });
    if (role === 'pinches') this.takeBack(takenBack);
    else this.drop(takenBack);
    if (role === 'rests') return;
    this.host.setPointerCapture(event.pointerId);
    const from = this.inWindow(event);
    const pointer: DownPointer = { ...from, from, downAt: event.timeStamp, gesture: undefined };
    this.down.set(event.pointerId, pointer);
    if (role === 'pinches') this.pinching = true;
    if (this.pinching || this.movesPage(event)) return;
    const isPen = event.pointerType === 'pen';
    // Bit 2 is the barrel button, bit 32 the eraser end (Pointer Events 3, §5.1.1).
    const eraser = isPen && (event.buttons & (2 | 32)) !== 0;
    pointer.gesture = this.glass.begin(this.pointOf(event, pointer), isPen, eraser);
  }

  private pointerMove(event: PointerEvent): void {
    const pointer = this.down.get(event.pointerId);
    const { takenBack } = this.roles.move(this.contactOf(event));
    if (takenBack.length > 0) return this.drop(takenBack);
    if (!pointer) {
      const { x, y } = this.inWindow(event);
      return this.glass.hover(this.glass.toPage(x, y));
    }
    if (pointer.gesture) {
      pointer.gesture.move(coalesced(event).map((each) => this.pointOf(each, pointer)));
      return;
    }
    const before = this.pinchShape();
    const { x, y } = this.inWindow(event);
    const [dx, dy] = [x - pointer.x, y - pointer.y];
    if (!this.pinching && event.pointerType === 'touch' && !pointer.pans) {
      if (Math.hypot(x - pointer.from.x, y - pointer.from.y) < LEAST_PAN) return;
      pointer.pans = true;
    }
    Object.assign(pointer, { x, y });
    if (!this.pinching) return this.glass.pan(dx, dy);
    const after = this.pinchShape();
    if (!before || !after) return;
    this.glass.zoom(after.spread / before.spread, after.centre);
    this.glass.pan(after.centre.x - before.centre.x, after.centre.y - before.centre.y);
  }

  private pointerUp(event: PointerEvent, how: 'end' | 'cancel'): void {
    const pointer = this.down.get(event.pointerId);
    this.roles.up(event.pointerId, event.timeStamp);
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
    if (!pinched && Math.hypot(dx, dy) < TAP_REACH) this.glass.uncover(this.glass.toPage(x, y));
    const quick = event.timeStamp - pointer.downAt < SWIPE.ms;
    const across = Math.abs(dx) > SWIPE.distance && Math.abs(dx) > 2 * Math.abs(dy);
    // Of two fingers the second to leave counts, so that one swipe is one turn.
    if (event.pointerType === 'touch' && quick && across && this.down.size === 0)
      this.glass.swipe(dx < 0 ? 1 : -1);
  }

  private wheel(event: WheelEvent): void {
    event.preventDefault();
    const unit = event.deltaMode === WheelEvent.DOM_DELTA_LINE ? LINE_HEIGHT : 1;
    if (event.ctrlKey || event.metaKey) {
      this.glass.zoom(Math.exp(-event.deltaY * unit * WHEEL_ZOOM), this.inWindow(event));
    } else if (event.shiftKey && event.deltaX === 0) this.glass.pan(-event.deltaY * unit, 0);
    else this.glass.pan(-event.deltaX * unit, -event.deltaY * unit);
  }

  /** Whether this pointer moves the page instead of working on it. */
  private movesPage(event: PointerEvent): boolean {
    if (event.button === 1 || this.spaceHeld || !this.glass.writing) return true;
    return event.pointerType === 'touch' && this.roles.hasPen && this.glass.finger === 'move';
  }

  /** Takes back what contacts have begun that were taken for something else; they go on as part of a pinch. */
  private takeBack(ids: readonly number[]): void {
    for (const id of ids) {
      const pointer = this.down.get(id);
      pointer?.gesture?.cancel();
      if (pointer) pointer.gesture = undefined;
    }
  }

  /** Takes back what contacts have begun, and listens to them no more: hands that rest. */
  private drop(ids: readonly number[]): void {
    this.takeBack(ids);
    for (const id of ids) this.down.delete(id);
  }

  private contactOf(event: PointerEvent): Contact {
    const { pointerId: id, pointerType, width, height, timeStamp: at } = event;
    const kind = pointerType === 'touch' || pointerType === 'pen' ? pointerType : 'mouse';
    return { id, kind, ...this.inWindow(event), width, height, at };
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
      ...this.glass.toPage(x, y),
      pressure,
      tilt: tiltFromUpright(event.tiltX, event.tiltY),
      time,
      ...keys,
    };
  }
}
