export * from './classTable.js';
export * from './readClassTable.js';
export * from './writeTable.js';
