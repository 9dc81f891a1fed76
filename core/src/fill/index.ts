export * from './pour.js';
export * from './traceRings.js';
