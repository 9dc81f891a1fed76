/** Phones upright and lying, a tablet, laptops, a display, and twice as many pixels; CSS pixels. */
export const SIZES = [
  [320, 640],
  [390, 844],
  [844, 390],
  [820, 1180],
  [1024, 768],
  [1280, 800],
  [1366, 625],
  [1920, 1080],
  [3840, 2160],
] as const;
