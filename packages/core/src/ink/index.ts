export { ByteReader, ByteWriter, InkCodingError } from './bytes.js';
export * from './codec.js';
export { InkColumns } from './columns.js';
export * from './contrast.js';
export * from './hit.js';
export * from './palette.js';
export * from './stroke.js';
export * from './tint.js';
export * from './transform.js';
