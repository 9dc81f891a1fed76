export * from './features.js';
export * from './learned.js';
export * from './letterNet.js';
export type { ReadLine, ReadWord } from './readLine.js';
export * from './readWriting.js';
export * from './wordList.js';
