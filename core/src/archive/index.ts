export * from './archiveSchema.js';
export * from './checkArchive.js';
export * from './lessonArchive.js';
export * from './renamed.js';
