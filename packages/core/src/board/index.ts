export * from './board.js';
export * from './draft.js';
export * from './item.js';
export * from './outline.js';
export * from './page.js';
export * from './paper.js';
export * from './sheets.js';
export * from './snapshot.js';
