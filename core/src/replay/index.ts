export * from './growingInk.js';
export * from './playClock.js';
export * from './replay.js';
export * from './steps.js';
