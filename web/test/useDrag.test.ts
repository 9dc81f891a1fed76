import type { PointerEvent } from 'react';
import { beforeEach, describe, expect, it, vi } from 'vitest';
import { takeArrow } from '../src/ui/arrowKeys';
import { dragHandlers } from '../src/ui/useDrag';

/** A pointer at a place, whose element notes which pointers it keeps. */
function pointer(pointerId: number, clientX: number): PointerEvent<Element> {
  return { pointerId, clientX, currentTarget: { setPointerCapture } } as unknown as PointerEvent<Element>;
}
const setPointerCapture = vi.fn<(id: number) => void>();

/** Something that is dragged, and what became of it. */
function dragged() {
  const said: string[] = [];
  const handlers = dragHandlers(
    {},
    {
      begin: ({ clientX }: PointerEvent<Element>) => clientX,
      move: ({ clientX }, from) => said.push(`${from} to ${clientX}`),
      end: ({ clientX }, from, dropped) => said.push(`${dropped ? 'dropped' : 'left'} ${from} at ${clientX}`),
    },
  );
  return { said, ...handlers };
}

beforeEach(() => setPointerCapture.mockClear());

describe('what is dragged', () => {
  it('follows the pointer that took hold of it, wherever that goes, until it comes up', () => {
    const { said, onPointerDown, onPointerMove, onPointerUp } = dragged();
    onPointerMove(pointer(1, 5));
    onPointerDown(pointer(1, 10));
    expect(setPointerCapture).toHaveBeenCalledWith(1);
    onPointerMove(pointer(1, 14));
    onPointerUp(pointer(1, 20));
    onPointerMove(pointer(1, 30));
    onPointerUp(pointer(1, 30));
    expect(said).toEqual(['10 to 14', 'dropped 10 at 20']);
  });

  it('is not torn away by a second finger', () => {
    const { said, onPointerDown, onPointerMove, onPointerUp } = dragged();
    onPointerDown(pointer(1, 10));
    onPointerDown(pointer(2, 90));
    onPointerMove(pointer(2, 95));
    onPointerUp(pointer(2, 95));
    onPointerUp(pointer(1, 12));
    expect(said).toEqual(['dropped 10 at 12']);
    expect(setPointerCapture).not.toHaveBeenCalledWith(2);
  });

  it('is told when the system takes the pointer away, and can be taken hold of again', () => {
    const { said, onPointerDown, onPointerCancel, onPointerUp } = dragged();
    onPointerDown(pointer(1, 10));
    onPointerCancel(pointer(1, 15));
    onPointerDown(pointer(2, 40));
    onPointerUp(pointer(2, 41));
    expect(said).toEqual(['left 10 at 15', 'dropped 40 at 41']);
  });
});

describe('an arrow key', () => {
  it('does nothing else once it was taken; other keys are left alone', () => {
    const press = (key: string) => ({ key, preventDefault: vi.fn(), stopPropagation: vi.fn() });
    const up = press('ArrowUp');
    expect(takeArrow(up)).toEqual([0, -1]);
    expect(up.preventDefault).toHaveBeenCalled();
    expect(up.stopPropagation).toHaveBeenCalled();
    const letter = press('a');
    expect(takeArrow(letter)).toBeUndefined();
    expect(letter.preventDefault).not.toHaveBeenCalled();
  });
});
