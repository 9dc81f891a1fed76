export * from './circles.js';
export * from './edges.js';
export * from './lines.js';
export * from './snaps.js';
export * from './guides.js';
