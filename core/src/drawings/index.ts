/** Clean line drawings that rough ink may be meant for. */
export * from './lineDrawing.js';
export * from './drawingMatcher.js';
export * from './placedDrawing.js';
