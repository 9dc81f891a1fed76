export * from './explained.js';
export * from './noted.js';
export * from './playedParts.js';
export * from './shown.js';
