import type { Placement, ScreenMove } from '@doodla/core';
import type { Frame, ViewState } from '@doodla/core/follow';
import { DirtyArea, greyFrame, ViewMemory } from '@doodla/core/follow';
import { expose, transfer } from 'comlink';
import { moveBetween, movedFrame } from './move';
import { FrameEncoder } from './frameEncoder';

/** A part of the screen, ready to be sent. */
export interface EncodedPart {
  kind: 'video' | 'picture';
  key: boolean;
  codec?: string;
  x: number;
  y: number;
  move?: ScreenMove;
  bytes: ArrayBuffer;
}

export interface TakenFrame {
  /** Given back, to be shown together with the state. */
  bitmap: ImageBitmap;
  state: ViewState;
  parts: EncodedPart[];
}

export interface TakeOptions {
  at: number;
  /** Whether ink moves with the content. */
  follow: boolean;
  /** Where the content is, by whoever knows it; then it need not be found. */
  told?: ViewState | undefined;
  /** Whether somebody needs a whole picture. */
  whole: boolean;
  /** Whether there is anybody to send anything to. */
  send: boolean;
  /** Whether somebody cannot decode video, so that pictures have to do. */
  plain: boolean;
}

/** Changes of a smaller share of the screen are sent as pictures straight away. */
const SMALL_SHARE = 0.12;
/** A scroll that uncovers more than this share of the screen is sent like any other change. */
const SCROLL_SHARE = 0.5;
/** What has been sent as video is sent sharp when it has held still for so long. */
const SETTLED_MS = 350;
const SHARP = 0.92;
/** Where video cannot be encoded, moving pictures are sent like this. */
const ROUGH = 0.6;

/** Where nothing moves, there is one view. */
const STILL: ViewState = { view: 0, panes: [], certain: true };

let memory = new ViewMemory();
let before: Frame | undefined;
/** Where things were in the frame that was last sent. */
let sentState: ViewState | undefined;
let changedAt = 0;
const blurred = new DirtyArea();
const encoder = new FrameEncoder();
const sheet = new OffscreenCanvas(1, 1);
const part = new OffscreenCanvas(1, 1);

const worker = {
  /** Takes the next frame: follows its content and encodes what has changed. */
  async take(bitmap: ImageBitmap, options: TakeOptions): Promise<TakenFrame> {
    const frame = read(bitmap);
    const state = options.told ?? (options.follow ? memory.take(frame, options.at) : STILL);
    const parts = options.send ? await encode(bitmap, frame, state, options) : [];
    // What was not sent has to be found changed the next time.
    if (options.send) [before, sentState] = [frame, state];
    const taken: TakenFrame = { bitmap, state, parts };
    return transfer(taken, [bitmap, ...parts.map(({ bytes }) => bytes)]);
  },

  /** Makes a view known from a kept picture of it; gives its number. */
  seed(bitmap: ImageBitmap, place: Placement, view?: number): number {
    const frame = read(bitmap);
    bitmap.close();
    return memory.seed(frame, place, view);
  },

  /** Forgets all views; what comes next is a new one. */
  forget(): void {
    memory = new ViewMemory();
  },
};

export type ScreenWorker = typeof worker;

function read(bitmap: ImageBitmap): Frame {
  const { width, height } = bitmap;
  if (sheet.width !== width || sheet.height !== height) Object.assign(sheet, { width, height });
  const ctx = sheet.getContext('2d', { willReadFrequently: true })!;
  ctx.drawImage(bitmap, 0, 0);
  return greyFrame(ctx.getImageData(0, 0, width, height).data, width, height);
}

async function encode(
  bitmap: ImageBitmap,
  frame: Frame,
  state: ViewState,
  { at, whole, plain }: TakeOptions,
): Promise<EncodedPart[]> {
  if (whole || before?.width !== frame.width || before.height !== frame.height) {
    blurred.clear();
    encoder.restart();
    return [await picture(bitmap, { x: 0, y: 0, width: frame.width, height: frame.height }, SHARP, true)];
  }
  const changed = DirtyArea.between(before, frame);
  if (changed.rect) changedAt = at;
  if (!changed.rect) {
    const sharp = blurred.rect;
    if (!sharp || at - changedAt < SETTLED_MS) return [];
    blurred.clear();
    return [await picture(bitmap, sharp, SHARP, false)];
  }
  if (changed.share < SMALL_SHARE) return [await picture(bitmap, changed.rect, SHARP, false)];
  const scrolled = await scrollPart(bitmap, frame, state);
  if (scrolled) return [scrolled];
  blurred.add(changed.rect);
  const video = plain ? undefined : await encoder.encode(bitmap, at);
  if (!video) return [await picture(bitmap, changed.rect, ROUGH, false)];
  return [{ kind: 'video', x: 0, y: 0, ...video }];
}

/** A scroll as a move of what is there, with a picture of what it uncovers; undefined where that would not do. */
async function scrollPart(
  bitmap: ImageBitmap,
  frame: Frame,
  state: ViewState,
): Promise<EncodedPart | undefined> {
  const move = sentState && moveBetween(sentState, state);
  // What is blurred is moved along and made sharp as a whole once it holds still.
  if (!move || !before || blurred.rect) return undefined;
  const { rect, share } = DirtyArea.between(movedFrame(before, move), frame);
  if (share > SCROLL_SHARE) return undefined;
  const part = await picture(bitmap, rect ?? { x: move.x, y: move.y, width: 1, height: 1 }, SHARP, false);
  return { ...part, move };
}

async function picture(
  bitmap: ImageBitmap,
  { x, y, width, height }: { x: number; y: number; width: number; height: number },
  quality: number,
  key: boolean,
): Promise<EncodedPart> {
  Object.assign(part, { width, height });
  part.getContext('2d')!.drawImage(bitmap, x, y, width, height, 0, 0, width, height);
  const blob = await part.convertToBlob({ type: 'image/webp', quality });
  return { kind: 'picture', key, x, y, bytes: await blob.arrayBuffer() };
}

expose(worker);
