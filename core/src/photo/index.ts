export * from './cleanPaper.js';
export * from './perspective.js';
