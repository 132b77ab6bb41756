export * from './jpeg.js';
export * from './picture-error.js';
export * from './sniff.js';
export { pngWithoutNotes } from './png.js';
