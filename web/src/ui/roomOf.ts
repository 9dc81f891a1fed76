/** In less room than this the interface is laid out for a hand-held screen: the tools are a strip along the lower edge. */
const COMPACT = { width: 760, height: 480 };

/** How much room a window has, measured in CSS pixels at the usual size of letters. */
export interface WindowRoom {
  width: number;
  height: number;
  /** Whether it is laid out for a hand-held screen. */
  compact: boolean;
}

/** The room that a window has when the interface is `scale` times as large as usual. */
export function roomOf(size: { width: number; height: number }, scale: number): WindowRoom {
  const [width, height] = [size.width / scale, size.height / scale];
  return { width, height, compact: width < COMPACT.width || height < COMPACT.height };
}
