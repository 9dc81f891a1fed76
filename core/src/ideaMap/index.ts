export * from './edits.js';
export { BRANCHES, type Branch, type Common, ideaMark, isMiddle } from './ideaMarks.js';
export * from './ideaTree.js';
export * from './layout.js';
export * from './markdown.js';
export * from './opml.js';
export * from './outline.js';
