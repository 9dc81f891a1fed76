export * from './readFormula.js';
export * from './signNet.js';
