import type { Pane, Placement } from '../live/panes.js';
import { mainPlace } from '../live/panes.js';
import type { Fingerprint } from './fingerprint.js';
import { fingerprintOf, isSameCell, isSameView, likeness } from './fingerprint.js';
import type { Frame } from './frame.js';
import type { Motion } from './motion.js';
import { estimateMotion } from './motion.js';
import { panesAfter } from './panesAfter.js';

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

/** Where the content of the screen is now. */
export interface ViewState {
  /** Number of the view, counted from 0 in the order they were first seen. */
  view: number;
  /** What has been scrolled or enlarged by itself since the view was first seen, and where it is; pixels of the frame. */
  panes: readonly Pane[];
  /** False while it is open what has become of the screen; then view and panes are the last known ones. */
  certain: boolean;
}

/** Errors that gather are less than this, pixels; what is further away is another place. */
const DRIFT = 8;
/** What twice the size amounts to in distance, pixels. */
const OTHER_SIZE = 1000;
/** Places no further apart than this are one, pixels. */
const AT_PLACE = 2;

interface Snapshot {
  view: number;
  panes: readonly Pane[];
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
  /** Whether it has been scrolled since its place was last made sure of. */
  private isMoving = false;

  /**
   * Makes a view known from a picture of it that was kept, such as before a reload; `place` is where its content lay.
   * Returns its number.
   */
  seed(frame: Frame, place: Placement, view = this.views++): number {
    const region = { x: 0, y: 0, width: frame.width, height: frame.height };
    const print = fingerprintOf(frame);
    this.restless[view] ??= new Uint8Array(print.filled.length);
    this.remember({ view, panes: [{ id: 1, region, place }], print, frame });
    return view;
  }

  /** Takes the next frame, with its time in milliseconds. Returns where things are now. */
  take(frame: Frame, at: number): ViewState {
    const { before, state } = this;
    this.before = frame;
    if (!before || !state) {
      const known = this.snapshots.length > 0 ? (this.recall(frame) ?? this.jump(frame)) : undefined;
      return known ? this.arrive(known) : this.begin(frame);
    }
    const motion = estimateMotion(before, frame);
    if (this.unsureSince !== undefined) return this.resolve(before, frame, state, motion, at);
    if (motion.kind === 'moved') return this.scroll(frame, state, motion);
    if (motion.kind === 'still') {
      this.anchor = undefined;
      return this.isMoving ? this.settle(frame, state) : state;
    }
    return motion.share < SMALL_CHANGE ? state : this.change(before, frame, state, at);
  }

  /** A view that was not seen before. */
  private begin(frame: Frame): ViewState {
    const view = this.views++;
    const print = fingerprintOf(frame);
    this.restless[view] = new Uint8Array(print.filled.length);
    this.remember({ view, panes: [], print, frame });
    return this.arrive({ view, panes: [], certain: true });
  }

  private arrive(state: ViewState): ViewState {
    this.unsureSince = undefined;
    this.anchor = undefined;
    this.state = state;
    return state;
  }

  private scroll(frame: Frame, state: ViewState, motion: Moved): ViewState {
    const next = { ...state, panes: panesAfter(state.panes, motion.region, motion) };
    this.anchor = undefined;
    this.isMoving = true;
    this.state = next;
    const far = NEXT_SNAPSHOT * Math.min(frame.width, frame.height);
    if (!this.isRemembered(next, far)) this.remember({ ...next, print: fingerprintOf(frame), frame });
    return next;
  }

  /** Corrects what many small steps have gathered in errors by a picture of a place nearby, once it holds still. */
  private settle(frame: Frame, state: ViewState): ViewState {
    this.isMoving = false;
    const near = this.nearest(state);
    const motion = near?.frame && estimateMotion(near.frame, frame);
    if (!near || motion?.kind !== 'moved') return state;
    const panes = panesAfter(near.panes, motion.region, motion);
    return distance(panes, state.panes) < DRIFT ? (this.state = { ...state, panes }) : state;
  }

  /** The remembered place of a view that lies nearest, of those with a picture. */
  private nearest({ view, panes }: ViewState): Snapshot | undefined {
    return this.snapshots
      .filter((snapshot) => snapshot.view === view && snapshot.frame && snapshot.panes.length > 0)
      .sort((a, b) => distance(a.panes, panes) - distance(b.panes, panes))[0];
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
    for (const { view, frame: other, panes } of [...this.snapshots].reverse()) {
      if (!other) continue;
      const motion = estimateMotion(other, frame);
      if (motion.kind !== 'moved') continue;
      return this.arrive({ view, panes: panesAfter(panes, motion.region, motion), certain: true });
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
      const panes = panesIn(snapshot, frame, like);
      if (panes) return { view: snapshot.view, panes, certain: true };
    }
    return undefined;
  }

  /** Whether a view is remembered at a place no further away than `far` pixels. */
  private isRemembered({ view, panes }: ViewState, far: number): boolean {
    return this.snapshots.some((other) => other.view === view && distance(other.panes, panes) <= far);
  }

  private remember(snapshot: Snapshot): void {
    this.snapshots.push(snapshot);
    const framed = this.snapshots.filter(({ frame }) => frame !== undefined);
    if (framed.length > KEPT_FRAMES) framed[0]!.frame = undefined;
    if (this.snapshots.length > MAX_SNAPSHOTS) this.snapshots.shift();
  }
}

type Moved = Extract<Motion, { kind: 'moved' }>;

/** How far the main panes of two places of a view lie apart, pixels; another size counts as far. */
function distance(a: readonly Pane[], b: readonly Pane[]): number {
  const [p, q] = [mainPlace(a), mainPlace(b)];
  return Math.hypot(p.x - q.x, p.y - q.y) + OTHER_SIZE * Math.abs(Math.log(p.scale / q.scale));
}

/** The panes of a frame that is like a snapshot; undefined where that cannot be told. */
function panesIn({ frame: kept, panes }: Snapshot, frame: Frame, like: number): readonly Pane[] | undefined {
  if (!kept) return like >= VERY_ALIKE ? panes : undefined;
  const motion = estimateMotion(kept, frame);
  if (motion.kind === 'moved') return panesAfter(panes, motion.region, motion);
  return motion.kind === 'still' || motion.share < SMALL_CHANGE || like >= VERY_ALIKE ? panes : undefined;
}

function markChanged(changed: Uint8Array, a: Fingerprint, b: Fingerprint): void {
  for (let cell = 0; cell < changed.length; cell++) if (!isSameCell(a, b, cell)) changed[cell] = 1;
}
