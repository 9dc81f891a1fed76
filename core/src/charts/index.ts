export * from './chartRecipe.js';
export * from './drawChart.js';
export * from './statistics.js';
