export * from './takeAnnotations.js';
