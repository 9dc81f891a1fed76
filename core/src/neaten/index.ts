export * from './reading.js';
export * from './readShapes.js';
export { fitCircle, fitEllipse } from './rounds.js';
export * from './automatic.js';
