export * from './accepted.js';
export * from './answering.js';
export * from './judge.js';
export * from './movements.js';
export * from './places.js';
export * from './ruleCheck.js';
