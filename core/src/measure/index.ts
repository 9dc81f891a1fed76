import { registerFigures } from '../paint/figures.js';
import { paintedFigures } from './paintFigures.js';

export * from './facts.js';
export * from './figures.js';
export * from './gauges.js';
export * from './obey.js';
export * from './outline.js';
export * from './said.js';
export { centroid } from './paintFigures.js';

registerFigures(paintedFigures);
