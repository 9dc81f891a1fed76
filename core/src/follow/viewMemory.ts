import type { Rect } from '../geometry/rect.js';
import type { Fingerprint } from './fingerprint.js';
import { fingerprintOf, isSameCell, isSameView, likeness } from './fingerprint.js';
import type { Frame } from './frame.js';
import type { Motion } from './motion.js';
import { estimateMotion } from './motion.js';

/** What changed has to hold still so long before it counts as a view of its own, milliseconds. */
const SETTLE_MS = 450;
/** Changes of a smaller share of the screen leave the view as it is: a video, a menu. */
const SMALL_CHANGE = 0.22;
/** What keeps changing for so long beside something that does not is a video, milliseconds. */
const VIDEO_MS = 900;
/** Share of what there is to see that has to hold still beside a video. */
const BESIDE_VIDEO = 0.3;
/** Part of the screen's height by which content is scrolled before it is remembered anew. */
const NEXT_SNAPSHOT = 0.3;
/** Snapshots whose pictures are kept, to tell small shifts by; the others have their fingerprint only. */
const KEPT_FRAMES = 24;
const MAX_SNAPSHOTS = 2000;
/** Likeness from which a snapshot without a picture is trusted to the pixel. */
const VERY_ALIKE = 0.95;

export interface Offset {
  x: number;
  y: number;
}

/** Where the content of the screen is now. */
export interface ViewState {
  /** Number of the view, counted from 0 in the order they were first seen. */
  view: number;
  /** How far the view's content has moved on the glass since it was first seen, pixels of the frame. */
  offset: Offset;
  /** What moves when the content is scrolled; the whole screen until something has moved. */
  region: Rect;
  /** False while it is open what has become of the screen; then offset and view are the last known ones. */
  certain: boolean;
}

/** Places no further apart than this are one, pixels. */
const AT_PLACE = 2;

interface Snapshot {
  view: number;
  offset: Offset;
  region: Rect;
  print: Fingerprint;
  frame: Frame | undefined;
}

/**
 * Follows what a screen shows from frame to frame: how far the content has been scrolled, and
 * which view it is. Views are remembered, at several places along their scroll, and known again.
 */
export class ViewMemory {
  private state: ViewState | undefined;
  private before: Frame | undefined;
  /** When the screen last changed while it was open what it shows. */
  private unsureSince: number | undefined;
  /** While something changes: the view before it did, when that began, and which cells have changed since. */
  private anchor: { print: Fingerprint; since: number; changed: Uint8Array } | undefined;
  /** Cells of each view that hold videos and the like. */
  private readonly restless: Uint8Array[] = [];
  private readonly snapshots: Snapshot[] = [];
  private views = 0;

  /** Takes the next frame, with its time in milliseconds. Returns where things are now. */
  take(frame: Frame, at: number): ViewState {
    const { before, state } = this;
    this.before = frame;
    if (!before || !state) return this.begin(frame);
    const motion = estimateMotion(before, frame);
    if (this.unsureSince !== undefined) return this.resolve(before, frame, state, motion, at);
    if (motion.kind === 'moved') return this.scroll(frame, state, motion);
    if (motion.kind === 'still') {
      this.anchor = undefined;
      return state;
    }
    return motion.share < SMALL_CHANGE ? state : this.change(before, frame, state, at);
  }

  /** A view that was not seen before. */
  private begin(frame: Frame): ViewState {
    const view = this.views++;
    const region = { x: 0, y: 0, width: frame.width, height: frame.height };
    const offset = { x: 0, y: 0 };
    const print = fingerprintOf(frame);
    this.restless[view] = new Uint8Array(print.filled.length);
    this.remember({ view, offset, region, print, frame });
    return this.arrive({ view, offset, region, certain: true });
  }

  private arrive(state: ViewState): ViewState {
    this.unsureSince = undefined;
    this.anchor = undefined;
    this.state = state;
    return state;
  }

  private scroll(
    frame: Frame,
    state: ViewState,
    { dx, dy, region }: { dx: number; dy: number; region: Rect },
  ): ViewState {
    const offset = { x: state.offset.x + dx, y: state.offset.y + dy };
    const next = { ...state, offset, region };
    this.anchor = undefined;
    this.state = next;
    const far = NEXT_SNAPSHOT * Math.min(frame.width, frame.height);
    if (!this.isRemembered(next, far)) this.remember({ ...next, print: fingerprintOf(frame), frame });
    return next;
  }

  private change(before: Frame, frame: Frame, state: ViewState, at: number): ViewState {
    const print = fingerprintOf(frame);
    this.anchor ??= { print: fingerprintOf(before), since: at, changed: new Uint8Array(print.filled.length) };
    if (isSameView(this.anchor.print, print, this.restless[state.view])) return state;
    if (!this.isRemembered(state, AT_PLACE))
      this.remember({ ...state, print: this.anchor.print, frame: before });
    const found = this.recall(frame, print);
    if (found) return this.arrive(found);
    this.unsureSince = at;
    this.anchor.since = at;
    return (this.state = { ...state, certain: false });
  }

  /** Finds out what the screen shows after something has changed that nothing explained. */
  private resolve(before: Frame, frame: Frame, state: ViewState, motion: Motion, at: number): ViewState {
    if (motion.kind !== 'still') this.unsureSince = at;
    const print = fingerprintOf(frame);
    const found = this.recall(frame, print);
    if (found) return this.arrive(found);
    if (at - this.unsureSince! >= SETTLE_MS) return this.jump(frame) ?? this.begin(frame);
    if (motion.kind !== 'still' && this.isVideo(fingerprintOf(before), print, state, at))
      return this.arrive({ ...state, certain: true });
    return state;
  }

  /** A place in a view between those that are remembered, such as after a turn of many lines. */
  private jump(frame: Frame): ViewState | undefined {
    for (const { view, frame: other, offset } of [...this.snapshots].reverse()) {
      if (!other) continue;
      const motion = estimateMotion(other, frame);
      if (motion.kind !== 'moved') continue;
      const place = { x: offset.x + motion.dx, y: offset.y + motion.dy };
      return this.arrive({ view, offset: place, region: motion.region, certain: true });
    }
    return undefined;
  }

  /** Whether what keeps changing is only a part of the view it began in; that part is left out from now on. */
  private isVideo(before: Fingerprint, now: Fingerprint, state: ViewState, at: number): boolean {
    const { anchor } = this;
    if (!anchor) return false;
    markChanged(anchor.changed, before, now);
    markChanged(anchor.changed, anchor.print, now);
    if (at - anchor.since < VIDEO_MS) return false;
    const left = anchor.print.filled.reduce(
      (sum, is, cell) => sum + (is && !anchor.changed[cell] ? 1 : 0),
      0,
    );
    const all = anchor.print.filled.reduce((sum, is) => sum + is, 0);
    if (left < BESIDE_VIDEO * all || !isSameView(anchor.print, now, anchor.changed)) return false;
    const restless = this.restless[state.view]!;
    for (let cell = 0; cell < restless.length; cell++) restless[cell]! |= anchor.changed[cell]!;
    return true;
  }

  /** Where a frame was seen before, to the pixel; undefined where it was not. */
  private recall(frame: Frame, print = fingerprintOf(frame)): ViewState | undefined {
    const ranked = this.snapshots
      .filter((snapshot) => isSameView(snapshot.print, print, this.restless[snapshot.view]))
      .map((snapshot) => ({ snapshot, like: likeness(snapshot.print, print, this.restless[snapshot.view]) }))
      .sort((a, b) => b.like - a.like);
    for (const { snapshot, like } of ranked.slice(0, 3)) {
      const shift = shiftFrom(snapshot, frame, like);
      if (!shift) continue;
      const offset = { x: snapshot.offset.x + shift.x, y: snapshot.offset.y + shift.y };
      return { view: snapshot.view, offset, region: snapshot.region, certain: true };
    }
    return undefined;
  }

  /** Whether a view is remembered at a place no further away than `far` pixels. */
  private isRemembered({ view, offset }: ViewState, far: number): boolean {
    return this.snapshots.some(
      (other) =>
        other.view === view && Math.hypot(other.offset.x - offset.x, other.offset.y - offset.y) <= far,
    );
  }

  private remember(snapshot: Snapshot): void {
    this.snapshots.push(snapshot);
    const framed = this.snapshots.filter(({ frame }) => frame !== undefined);
    if (framed.length > KEPT_FRAMES) framed[0]!.frame = undefined;
    if (this.snapshots.length > MAX_SNAPSHOTS) this.snapshots.shift();
  }
}

/** How far a frame is shifted against a snapshot that it is like; undefined where that cannot be told. */
function shiftFrom({ frame: kept }: Snapshot, frame: Frame, like: number): Offset | undefined {
  if (!kept) return like >= VERY_ALIKE ? { x: 0, y: 0 } : undefined;
  const motion = estimateMotion(kept, frame);
  if (motion.kind === 'moved') return { x: motion.dx, y: motion.dy };
  return motion.kind === 'still' || motion.share < SMALL_CHANGE || like >= VERY_ALIKE
    ? { x: 0, y: 0 }
    : undefined;
}

function markChanged(changed: Uint8Array, a: Fingerprint, b: Fingerprint): void {
  for (let cell = 0; cell < changed.length; cell++) if (!isSameCell(a, b, cell)) changed[cell] = 1;
}
