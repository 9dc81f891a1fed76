import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { longTouchHandlers } from '../src/ui/useLongTouch';
import { fakeFrames } from './helpers/fakeFrames';

const told = vi.fn<(shown: boolean) => void>();
const click = () => ({ preventDefault: vi.fn<() => void>(), stopPropagation: vi.fn<() => void>() });

let nextFrame: () => void;

beforeEach(() => {
  vi.useFakeTimers();
  told.mockClear();
  nextFrame = fakeFrames();
});
afterEach(() => {
  vi.unstubAllGlobals();
  vi.useRealTimers();
});

describe('a finger on a button', () => {
  it('that rests is told its name for a while, and letting go does nothing', () => {
    const button = longTouchHandlers(told);
    button.onPointerDown({ pointerType: 'touch', timeStamp: 0 });
    vi.advanceTimersByTime(600);
    nextFrame();
    expect(told.mock.calls).toEqual([[true]]);
    button.onPointerUp({ timeStamp: 900 });
    const lettingGo = click();
    button.onClickCapture(lettingGo);
    expect(lettingGo.stopPropagation).toHaveBeenCalledOnce();
    vi.advanceTimersByTime(2000);
    nextFrame();
    expect(told.mock.calls).toEqual([[true], [false]]);
  });

  it('that taps does what the button does, also where the machine hears of it late', () => {
    const button = longTouchHandlers(told);
    button.onPointerDown({ pointerType: 'touch', timeStamp: 0 });
    vi.advanceTimersByTime(600);
    button.onPointerUp({ timeStamp: 80 });
    nextFrame();
    expect(told).not.toHaveBeenCalled();

    button.onPointerDown({ pointerType: 'touch', timeStamp: 1000 });
    vi.advanceTimersByTime(600);
    nextFrame();
    button.onPointerUp({ timeStamp: 1080 });
    const tap = click();
    button.onClickCapture(tap);
    expect(tap.stopPropagation).not.toHaveBeenCalled();
    expect(told.mock.calls).toEqual([[true], [false]]);
  });

  it('is nothing that a mouse does', () => {
    const button = longTouchHandlers(told);
    button.onPointerDown({ pointerType: 'mouse', timeStamp: 0 });
    vi.advanceTimersByTime(600);
    nextFrame();
    expect(told).not.toHaveBeenCalled();
  });
});
