export * from './may-have.js';
export * from './take.js';
export { AnnotationWriter } from './write.js';
