interface KeyPress {
  readonly key: string;
  preventDefault(): void;
  stopPropagation(): void;
}

/** Where arrow keys lead, -1 to 1 each way. */
export const ARROWS: Readonly<Record<string, readonly [number, number]>> = {
  ArrowLeft: [-1, 0],
  ArrowRight: [1, 0],
  ArrowUp: [0, -1],
  ArrowDown: [0, 1],
};

/** Where an arrow key leads, which then does nothing else; undefined for another key. */
export function takeArrow(event: KeyPress): readonly [number, number] | undefined {
  const arrow = ARROWS[event.key];
  if (!arrow) return undefined;
  event.preventDefault();
  event.stopPropagation();
  return arrow;
}
