export * from './lineStops.js';
export { greyFrame } from '../follow/frame.js';
