export * from './inkGuides.js';
export * from './instrument.js';
export * from './place.js';
export * from './readings.js';
export * from './scales.js';
export * from './shapes.js';
export * from './sizes.js';
export * from './trueSize.js';
