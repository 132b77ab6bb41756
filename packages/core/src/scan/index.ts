export { flatSize, flattened } from './flatten.js';
export { homography, mapped } from './homography.js';
export type { Homography, Quad } from './homography.js';
export { findPaper } from './paper.js';
export type { Raster } from './raster.js';
