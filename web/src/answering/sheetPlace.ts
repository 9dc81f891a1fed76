/** How wide the sheet is, and from which part of the window's height on it begins at the latest; it is 40 % of it high at most. */
const WIDTH = 256;
const LATEST = 0.45;
const GAP = 4;

/**
 * Where the sheet of a figure lies from the button that opened it, at the figure's upper right corner: under the figure, but never
 * beyond the window. Pixels.
 */
export function sheetPlace(
  button: { top: number; right: number },
  height: number,
  window: { width: number; height: number },
): { top: number; right: number } {
  const left = button.right - WIDTH;
  return {
    top: Math.min(height + GAP, LATEST * window.height - button.top),
    right: Math.min(0, left - GAP) + Math.max(0, button.right + GAP - window.width),
  };
}
