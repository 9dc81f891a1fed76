export * from './curve.js';
export * from './drawPlot.js';
export * from './functions.js';
export * from './places.js';
export * from './recipe.js';
export * from './statement.js';
export * from './table.js';
export * from './ticks.js';
