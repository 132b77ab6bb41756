export * from './codec.js';
export { decodePiece, encodePiece } from './live-piece.js';
export { inMessages, packedBoard, packedKind, packedOperationIds } from './message-limits.js';
export { PROTOCOL } from './protocol.js';
export * from './packed-board.js';
