export * from './chosenMarks.js';
export * from './copiedPages.js';
export { footOf, paintFoot } from './foot.js';
export type { Loss } from './losses.js';
export * from './originals.js';
export * from './pageTransform.js';
export * from './pdf.js';
export * from './sheets.js';
export * from './sources.js';
