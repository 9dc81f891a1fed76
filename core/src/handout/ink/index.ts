export * from './packedInk.js';
