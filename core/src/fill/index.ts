export * from './pour.js';
export * from './traceRings.js';
export * from './pourChanges.js';
