/** Places of the eight handles on a frame, 0 to 1 each way. */
export const HANDLES = [
  { x: 0, y: 0, cursor: 'nwse-resize', resize: 'selection.resizeUpperLeft', cut: 'selection.cutUpperLeft' },
  { x: 0.5, y: 0, cursor: 'ns-resize', resize: 'selection.resizeUpper', cut: 'selection.cutUpper' },
  { x: 1, y: 0, cursor: 'nesw-resize', resize: 'selection.resizeUpperRight', cut: 'selection.cutUpperRight' },
  { x: 1, y: 0.5, cursor: 'ew-resize', resize: 'selection.resizeRight', cut: 'selection.cutRight' },
  { x: 1, y: 1, cursor: 'nwse-resize', resize: 'selection.resizeLowerRight', cut: 'selection.cutLowerRight' },
  { x: 0.5, y: 1, cursor: 'ns-resize', resize: 'selection.resizeLower', cut: 'selection.cutLower' },
  { x: 0, y: 1, cursor: 'nesw-resize', resize: 'selection.resizeLowerLeft', cut: 'selection.cutLowerLeft' },
  { x: 0, y: 0.5, cursor: 'ew-resize', resize: 'selection.resizeLeft', cut: 'selection.cutLeft' },
] as const;

export type FrameHandle = (typeof HANDLES)[number];

/** How far an arrow key drags a handle, page units. */
export const KEY_STEP = 8;
