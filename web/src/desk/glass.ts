import type { Rect } from '@doodla/core';
import type { Signal, Store } from '@doodla/core/client';
import type { Fit, View } from '../canvas/view';
import type { PenPoint, RunningGesture } from './gesture';

/** What pointers and keys can do to the page that a window shows, and what is seen of it. */
export interface Glass {
  readonly host: HTMLElement;
  readonly view: Store<View>;
  /** The part of the page plane that the window shows. */
  readonly visible: Rect;
  /** Whether a pointer writes, instead of using the page. */
  readonly writing: boolean;
  /** What a finger does once a pen has been used. */
  readonly finger: 'write' | 'move' | 'nothing';
  /** Where the half of one hand ends, while the other has a pen of its own; CSS pixels. */
  readonly halvesAt: number | undefined;
  /** Tells where each gesture has ended. */
  readonly written: Signal<PenPoint>;
  /** The place of the page under a point of the window. */
  toPage(x: number, y: number): { x: number; y: number };
  /** Where in the browser's window a place of the page lies, CSS pixels. */
  toWindow(at: { x: number; y: number }): { x: number; y: number };
  /** Starts what a tool does at a point; `eraser` is the eraser end of a pen. */
  begin(at: PenPoint, pressure: boolean, eraser: boolean): RunningGesture | undefined;
  /** Takes away a patch that covers a point, in class. Returns whether there was one. */
  uncover(at: { x: number; y: number }): boolean;
  /** What a pointer does that is over the page without being down. */
  hover(at: { x: number; y: number } | undefined): void;
  pan(dx: number, dy: number): void;
  zoom(factor: number, at?: { x: number; y: number }): void;
  /** Turns the page by a swipe, where it fits and so cannot be moved instead. */
  swipe(step: number): void;
  setFit(fit: Fit): void;
  /** Brings a point of the page into the middle of the window. */
  centreOn(x: number, y: number): void;
  /** Draws the frame of a recording that is seen now into a context that is in page units. */
  drawRecording(ctx: CanvasRenderingContext2D): void;
  /** Where the recording on the page is, seconds; undefined where there is none to be seen. */
  readonly recordingAt: number | undefined;
  /** What is heard of it, as a track that can be recorded. */
  recordingSound(): MediaStreamTrack | undefined;
}
