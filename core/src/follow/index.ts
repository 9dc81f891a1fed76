export * from './candidates.js';
export * from './fingerprint.js';
export * from './frame.js';
export * from './match.js';
export * from './motion.js';
export * from './profiles.js';
export * from './tiles.js';
export * from './viewMemory.js';
