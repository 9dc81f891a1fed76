export * from './address.js';
export * from './changedQuote.js';
export * from './glue.js';
export * from './gluedMark.js';
export * from './pageAnnotations.js';
export * from './readAnnotations.js';
