export { pageOutline } from './page-outline.js';
export type { OutlinePart } from './page-outline.js';
