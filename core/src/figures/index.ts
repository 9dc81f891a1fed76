export * from './balance.js';
export * from './drawFigure.js';
export * from './elements.js';
export * from './figure.js';
export * from './figures.js';
export { imageOf } from './subjects/optics.js';
export { PITCHES } from './subjects/sports.js';
export { pitchesOf } from './subjects/music.js';
