export * from './madeFile.js';
export * from './parseXml.js';
export * from './svgFiles.js';
export * from './svgPage.js';
export * from './webAnnotations.js';
export * from './webPage.js';
export * from './inkMl.js';
export * from './readInkMl.js';
