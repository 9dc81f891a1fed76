export * from './notesSchema.js';
export * from './paragraphs.js';
export * from './sharedNotes.js';
export * from './wordPages.js';
