export { foreignPicture } from './foreign.js';
export { isAvif, isHeic, PICTURE_HEAD } from './heif.js';
export type { ForeignPicture } from './foreign.js';
export * from './left-out.js';
export * from './jpeg.js';
export * from './picture-error.js';
export * from './sniff.js';
export { pngWithoutNotes } from './png.js';
