export * from './captionFiles.js';
export * from './captions.js';
export * from './explained.js';
export * from './mending.js';
export * from './noted.js';
export * from './playedParts.js';
export * from './shown.js';
export * from './silences.js';
