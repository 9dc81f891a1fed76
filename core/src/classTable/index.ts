export * from './classTable.js';
export * from './readClassTable.js';
