export * from './codec.js';
export { decodePiece, encodePiece } from './live-piece.js';
export * from './messages.js';
export * from './person.js';
export * from './view.js';
export * from './problem.js';
export * from './packed-board.js';
export * from './showing.js';
export * from './talk.js';
