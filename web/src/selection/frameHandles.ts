/** Places of the eight handles on a frame, 0 to 1 each way. */
export const HANDLES = [
  { x: 0, y: 0, cursor: 'nwse-resize', name: 'upper left' },
  { x: 0.5, y: 0, cursor: 'ns-resize', name: 'upper' },
  { x: 1, y: 0, cursor: 'nesw-resize', name: 'upper right' },
  { x: 1, y: 0.5, cursor: 'ew-resize', name: 'right' },
  { x: 1, y: 1, cursor: 'nwse-resize', name: 'lower right' },
  { x: 0.5, y: 1, cursor: 'ns-resize', name: 'lower' },
  { x: 0, y: 1, cursor: 'nesw-resize', name: 'lower left' },
  { x: 0, y: 0.5, cursor: 'ew-resize', name: 'left' },
] as const;

export type FrameHandle = (typeof HANDLES)[number];

/** How far an arrow key drags a handle, page units. */
export const KEY_STEP = 8;
