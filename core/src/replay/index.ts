export * from './growingInk.js';
export * from './partsClock.js';
export * from './playClock.js';
export * from './replay.js';
export * from './steps.js';
