export * from './automatic.js';
export * from './drawings.js';
export * from './reading.js';
export * from './readShapes.js';
export * from './snapBody.js';
export { fitCircle, fitEllipse } from './rounds.js';
export * from './evenOut.js';
